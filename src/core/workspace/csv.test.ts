import { describe, expect, test } from 'vitest';
import { guessColumns, readRows } from './csv';
import type { FileError } from './json';

const guess = (text: string) => {
  const errors: FileError[] = [];
  return { guess: guessColumns('x.csv', text, errors), errors };
};

describe('guessing what a file holds', () => {
  test('a kind fits when every cell that is not empty is of it, and a code with a leading zero is no number', () => {
    const { guess: found } = guess(
      'Code,Depth (m),Built,Lit,Zip\r\nnq1,6.2,2031-01-02,yes,0123\r\nnq2,,2031-02-03,no,99\r\n',
    );
    expect(
      found!.columns.map(({ name, kind, label, empty }) => [name, kind, label, empty]),
    ).toEqual([
      ['code', 'text', 'Code', 0],
      ['depth_m', 'number', 'Depth (m)', 1],
      ['built', 'date', 'Built', 0],
      ['lit', 'yes_no', 'Lit', 0],
      ['zip', 'text', 'Zip', 0],
    ]);
    expect([found!.key, found!.rows]).toEqual(['code', 2]);
  });

  test('the key is the first column whose values are all there and all different', () => {
    expect(guess('name,code\nA,1\nA,2\n').guess!.key).toBe('code');
    expect(guess('name\nA\nA\n').guess!.key).toBeNull();
  });

  test('headings that make the same name get numbers, empty ones are called columns', () => {
    expect(guess('Name,name,,\na,b,c,d\n').guess!.columns.map(({ name }) => name)).toEqual([
      'name',
      'name_2',
      'column',
      'column_2',
    ]);
  });

  test('what is no CSV, or has no line of headings, is said so', () => {
    expect(guess('a,b\n"open,c\n').errors[0]!.says).toContain('never closed');
    expect(guess('').errors[0]!.says).toBe('the first line has to name the columns');
  });
});

test('bad cells are named by line and column, under the names that stand in for the headings', () => {
  const errors: FileError[] = [];
  const columns = [
    { name: 'code', kind: 'text' as const },
    { name: 'depth', kind: 'number' as const },
  ];
  const rows = readRows(
    'x.csv',
    'Code,Depth (m)\nnq1,deep\nnq1,2\n',
    { key: 'code', columns },
    errors,
    ['code', 'depth'],
  );
  expect(errors.map(({ line, path, says }) => [line, path, says])).toEqual([
    [2, ['depth'], '"deep" is not a number'],
    [3, ['code'], 'the key "nq1" is there twice'],
  ]);
  expect(rows[1]).toEqual({ code: 'nq1', depth: 2 });
});
