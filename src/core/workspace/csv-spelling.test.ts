import { describe, expect, test } from 'vitest';
import { guessColumns, readRows } from './csv';
import { delimiterOf, readCell, spellingOf, STANDARD } from './csv-spelling';
import type { FileError } from './json';

describe('what separates cells', () => {
  test.each([
    ['a,b\n1,2', ','],
    ['a;b\n1,5;2', ';'],
    ['a\tb\n1\t2', '\t'],
    ['a|b\n1|2', '|'],
    ['name;note\n"x, y; z";"1, 2"\nb;c', ';'],
    ['name,note\n"a;b;c",1\n"d;e;f",2', ','],
    ['only\none\ncolumn', ','],
    ['', ','],
  ])('%j', (text, delimiter) => expect(delimiterOf(text)).toBe(delimiter));
});

describe('decimals and dates', () => {
  const of = (cells: string[], delimiter: ';' | ',' = ';') => spellingOf(delimiter, [cells]);
  test.each([
    [['1,5', '2'], ',', 'ymd'],
    [['1.234,5'], ',', 'ymd'],
    [['1.5', '1,234.5'], '.', 'ymd'],
    [['02.05.2031'], '.', 'dmy'],
    [['2/5/31', '13/5/31'], '.', 'dmy'],
    [['2/5/31', '5/13/31'], '.', 'mdy'],
    [['2/5/31'], '.', 'dmy'],
    [['2031/05/02'], '.', 'ymd'],
    [['2031-05-02', 'x'], '.', 'ymd'],
  ] as const)('%j', (cells, decimal, dates) =>
    expect(of([...cells])).toEqual({ delimiter: ';', decimal, dates }),
  );
  test('a decimal comma is none where commas separate', () => {
    expect(of(['1,5'], ',').decimal).toBe('.');
  });
});

describe('cells', () => {
  const comma = { delimiter: ';', decimal: ',', dates: 'dmy' } as const;
  const us = { delimiter: ',', decimal: '.', dates: 'mdy' } as const;
  test.each([
    ['1,5', 'number', comma, 1.5],
    ['1.234.567,25', 'number', comma, 1234567.25],
    ['1\u00a0234,5', 'number', comma, 1234.5],
    ['-3', 'number', comma, -3],
    ['1.5', 'number', comma, undefined],
    ['1,234.5', 'number', us, 1234.5],
    ['1,5', 'number', us, undefined],
    ['12 tons', 'number', us, undefined],
    ['2.5.2031', 'date', comma, '2031-05-02'],
    ['02-05-31', 'date', comma, '2031-05-02'],
    ['05/02/2031', 'date', us, '2031-05-02'],
    ['2031/5/2', 'date', us, '2031-05-02'],
    ['31/12/1999', 'date', comma, '1999-12-31'],
    ['31.12.69', 'date', comma, '1969-12-31'],
    ['31.02.2031', 'date', comma, undefined],
    ['02.05/2031', 'date', comma, undefined],
    ['02.05.2031', 'date', STANDARD, undefined],
    ['Yes', 'yes_no', comma, true],
    ['FALSE', 'yes_no', comma, false],
    ['maybe', 'yes_no', comma, undefined],
    ['', 'date', comma, null],
    [' x ', 'text', comma, ' x '],
  ] as const)('%j as %s', (cell, kind, spelling, value) =>
    expect(readCell(cell, kind, spelling)).toBe(value),
  );
});

test('a file as an office writes it', () => {
  const errors: FileError[] = [];
  const text =
    '\ufeffCode;Rate;Since;Heated\r\noily;1.250,50;01.05.2031;yes\r\nash;12,5;13.05.2031;no\r\n';
  const guess = guessColumns('x.csv', text, errors)!;
  expect(guess.columns.map(({ name, kind }) => [name, kind])).toEqual([
    ['code', 'text'],
    ['rate', 'number'],
    ['since', 'date'],
    ['heated', 'yes_no'],
  ]);
  expect(guess.spelling).toEqual({ delimiter: ';', decimal: ',', dates: 'dmy' });
  const columns = guess.columns.map(({ name, kind }) => ({ name, kind }));
  expect(
    readRows(
      'x.csv',
      text,
      { key: 'code', columns },
      errors,
      ['code', 'rate', 'since', 'heated'],
      guess.spelling,
    ),
  ).toEqual([
    { code: 'oily', rate: 1250.5, since: '2031-05-01', heated: true },
    { code: 'ash', rate: 12.5, since: '2031-05-13', heated: false },
  ]);
  expect(errors).toEqual([]);
});

test.each([
  ['a;b\n"x;1', 'a quotation mark is opened and never closed'],
  ['a;b\nx"y;1', 'a quotation mark stands inside a cell'],
  ['a;b\n"x"y;1', 'something stands after a closing quotation mark'],
  ['a;b\n1;2;3', 'this line has more or fewer cells than the first one'],
])('what is no CSV is said in words: %j', (text, says) => {
  const errors: FileError[] = [];
  expect(
    guessColumns('x.csv', text, errors, { delimiter: ';', decimal: '.', dates: 'ymd' }),
  ).toBeNull();
  expect(errors[0]!.says).toContain(says);
  expect(errors[0]!.line).toBeGreaterThan(0);
});
