import { describe, expect, test } from 'vitest';
import { readNumber, readTypedNumber, showNumber, type NumberStyle } from './number-style';

describe('a number in a style', () => {
  test.each<[string, number | null, number | null]>([
    // text, with a decimal point, with a decimal comma
    ['1234', 1234, 1234],
    ['-12', -12, -12],
    ['+7', 7, 7],
    ['−3', -3, -3],
    [' 42 ', 42, 42],
    ['1.5', 1.5, null],
    ['1,5', null, 1.5],
    ['1,234', 1234, 1.234],
    ['1.234', 1.234, 1234],
    ['1,234.5', 1234.5, null],
    ['1.234,5', null, 1234.5],
    ['12 345', 12345, 12345],
    ["12'345", 12345, 12345],
    ['12\u202f345,6', null, 12345.6],
    ['1,234,567', 1234567, null],
    ['1.', 1, null],
    ['.5', 0.5, null],
    [',5', null, 0.5],
    ['1e3', 1000, 1000],
    ['1.5e-3', 0.0015, null],
    ['0', 0, 0],
    ['', null, null],
    ['0x10', null, null],
    ['0b1', null, null],
    ['Infinity', null, null],
    ['1e999', null, null],
    ['1 2', null, null],
    ['12,34', null, 12.34],
    ['1,23.4', null, null],
    ['1__2', null, null],
    ['one', null, null],
    ['1-2', null, null],
  ])('%j', (text, point, comma) => {
    expect([readNumber(text, 'point'), readNumber(text, 'comma')]).toEqual([point, comma]);
  });
});

test.each<[string, NumberStyle, number | null]>([
  ['4,5', 'point', 4.5],
  ['4.5', 'comma', 4.5],
  ['1,234', 'point', 1234],
  ['1,234', 'comma', 1.234],
  ['1.234,5', 'point', 1234.5],
  ['0x10', 'point', null],
])('typed, %j in a workspace with a decimal %s is %j', (text, style, number) => {
  expect(readTypedNumber(text, style)).toBe(number);
});

test('what is shown is read as the same number', () => {
  for (const style of ['point', 'comma'] as const)
    for (const value of [0, -1, 1234.5, 0.001, 1e21, 1e-7, 123456789])
      for (const decimals of [0, 2])
        expect(readNumber(showNumber(value, style, decimals), style)).toBe(value);
  expect(showNumber(4.5, 'comma', 2)).toBe('4,50');
  expect(showNumber(4.567, 'point', 2)).toBe('4.567');
});
