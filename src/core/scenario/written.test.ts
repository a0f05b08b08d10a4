import { describe, expect, test } from 'vitest';
import { choice, choices, formWith, number, rows, text, yesNo } from '../../../tests/support/forms';
import { casesAsCsv, casesFromCsv } from './cases-csv';
import type { Cases } from './definition';
import { readWritten, spellingOf, written } from './written';
import type { Spelling } from '../form/traits';

const form = formWith(
  [
    text('berth_code'),
    choice('kind', ['bulk', 'oil']),
    choices('extras', ['tugs', 'water']),
    yesNo('pilot'),
    number('dues'),
    rows('cargo', [number('weight'), text('mark')]),
  ],
  { launch: [{ name: 'quay', kind: 'number' }] },
);

describe('values written by hand', () => {
  test.each([
    ['berth_code', 'value', 'text'],
    ['kind', 'value', 'text'],
    ['extras', 'value', 'keys'],
    ['pilot', 'value', 'yes or no'],
    ['dues', 'value', 'number'],
    ['cargo', 'value', 'json'],
    ['cargo', 'count', 'number'],
    ['cargo[0].weight', 'value', 'number'],
    ['cargo[2].mark', 'value', 'text'],
    ['berth_code', 'required', 'yes or no'],
    ['kind', 'options', 'keys'],
    ['dues', 'problem', 'text'],
    ['@as', 'value', 'text'],
    ['@fails.register', 'value', 'yes or no'],
    ['@launch.quay', 'value', 'number'],
    ['@launch.other', 'value', 'json'],
    ['@messages', 'value', 'json'],
    ['@submit.saved', 'value', 'yes or no'],
    ['nowhere', 'constructor', 'json'],
  ] satisfies [string, string, Spelling][])('%s.%s is spelled as %s', (name, aspect, spelling) => {
    expect(spellingOf(form, name, aspect)).toBe(spelling);
  });

  test('the digits of a text stay a text, those of a number do not', () => {
    expect(readWritten('9900021', 'text')).toBe('9900021');
    expect(readWritten('9900021', 'number')).toBe(9900021);
    expect(readWritten('0x10', 'number')).toBeUndefined();
    expect([readWritten('1,5', 'number'), readWritten('1.500', 'number', 'comma')]).toEqual([
      1.5, 1500,
    ]);
    expect(written(1.5, 'number', 'comma')).toBe('1,5');
    expect(readWritten('6,4', 'number')).toBe(6.4);
    expect(readWritten('true', 'text')).toBe('true');
    expect(readWritten('Yes', 'yes or no')).toBe(true);
    expect(readWritten('tugs, water', 'keys')).toEqual(['tugs', 'water']);
    expect(readWritten('Quay 4', 'json')).toBe('Quay 4');
    expect(readWritten('  ', 'keys')).toBeNull();
  });

  test('what is no value of its spelling is none, and not another value', () => {
    expect(readWritten('six', 'number')).toBeUndefined();
    expect(readWritten('maybe', 'yes or no')).toBeUndefined();
    expect(readWritten('["tugs"', 'keys')).toBeUndefined();
    expect(readWritten('{"a":', 'json')).toBeUndefined();
  });

  test('comes back as it went', () => {
    const values = [
      null,
      true,
      false,
      0,
      -1.5,
      'oil',
      '9900021',
      'true',
      '',
      ' two spaces ',
      '"quoted"',
      'a, b',
      '[1]',
      [],
      ['tugs'],
      ['tugs', 'water'],
      ['a b', 'c,d'],
      [1, 2],
      { text: 'x' },
    ];
    const fits: Record<Spelling, (value: unknown) => boolean> = {
      text: (value) => value === null || typeof value === 'string',
      number: (value) => value === null || typeof value === 'number',
      'yes or no': (value) => value === null || typeof value === 'boolean',
      keys: (value) => value === null || Array.isArray(value),
      json: () => true,
    };
    for (const [spelling, takes] of Object.entries(fits))
      for (const value of values.filter(takes))
        expect([
          spelling,
          readWritten(written(value, spelling as Spelling), spelling as Spelling),
        ]).toEqual([spelling, value]);
  });

  test('a cell of a table that is no value of its column is said by line', () => {
    expect(casesFromCsv('title,dues\n,12\n,many', undefined, form)).toEqual({
      says: 'Line 3: “many” stands where there has to be a number.',
    });
    const cases: Cases = {
      inputs: ['berth_code', 'extras'],
      expected: ['pilot', 'dues.problem'],
      rows: [{ inputs: ['007', ['tugs', 'water']], expected: [false, 'Too much.'] }],
    };
    const csv = casesAsCsv(cases, form);
    expect(csv).toContain(',007,"tugs, water",false,Too much.');
    expect(casesFromCsv(csv, undefined, form)).toEqual(cases);
  });
});
