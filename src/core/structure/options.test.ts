import { describe, expect, test } from 'vitest';
import { changedOption, keyFor, movedOption, optionsIn, withoutOption } from './options';

const there = [
  { key: 'tug', label: 'Tug' },
  { key: 'yacht', label: 'Yacht' },
];
const pairs = (text: string, now = there) =>
  optionsIn(text, now).map(({ key, label }) => [key, label]);

describe('several at once', () => {
  test('lines are labels, with keys made from them', () => {
    expect(pairs(' Bulk carrier \r\n\nTug\nFähre, klein\n')).toEqual([
      ['bulk_carrier', 'Bulk carrier'],
      ['tug_2', 'Tug'],
      ['fahre_klein', 'Fähre, klein'],
    ]);
  });

  test.each([
    ['a\tLabel A\nb\tLabel B'],
    ['Label A;a\nLabel B;b'],
    ['key,label\na,Label A\nb,Label B'],
    ['Label;KEY\n"Label A";a\n"Label B";b'],
    ['a,"Label A"\nb,"Label B"'],
  ])('two columns: %j', (text) => {
    expect(pairs(text)).toEqual([
      ['a', 'Label A'],
      ['b', 'Label B'],
    ]);
  });

  test('a label with a comma is one label, and an open quote is no CSV', () => {
    expect(pairs('Oil, heated oil\nGas, all sorts')).toEqual([
      ['oil_heated_oil', 'Oil, heated oil'],
      ['gas_all_sorts', 'Gas, all sorts'],
    ]);
    expect(pairs('"Half\nRest')).toEqual([
      ['half', '"Half'],
      ['rest', 'Rest'],
    ]);
  });

  test('keys that are there or come twice get a number', () => {
    expect(pairs('tug;A\nx;B\nx;C')).toEqual([
      ['tug_2', 'A'],
      ['x', 'B'],
      ['x_2', 'C'],
    ]);
  });

  test('nothing of nothing', () => {
    expect(optionsIn(' \n\t\n', there)).toEqual([]);
  });
});

test('one at a time', () => {
  expect(keyFor('Tug', there)).toBe('tug_2');
  expect(movedOption('tug', 1)(there).map(({ key }) => key)).toEqual(['yacht', 'tug']);
  expect(movedOption('tug', -1)(there)).toEqual(there);
  expect(movedOption('gone', 1)(there)).toEqual(there);
  expect(withoutOption('tug')(there)).toEqual([there[1]]);
  expect(changedOption('tug', { label: 'Tow' })(there)[0]).toEqual({ key: 'tug', label: 'Tow' });
});
