/** Formats against the standards' own examples. */
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { text } from '../support/forms';
import { kindOf } from '../../src/core/form/kinds';
import { isDate, isEmail } from '../../src/core/form/formats';
import { readRows } from '../../src/core/workspace/csv';
import { writeRows } from '../../src/core/workspace/write';
import type { FileError } from '../../src/core/workspace/json';

describe('dates', () => {
  // HTML, "Dates": https://html.spec.whatwg.org/#valid-date-string; RFC 3339 section 5.7 and appendix C for leap years.
  test.each([
    '2011-11-18',
    '1985-04-12',
    '1996-12-19',
    '1990-12-31',
    '1937-01-01',
    '2000-02-29',
    '2024-02-29',
    '0001-01-01',
  ])('%s is one', (text) => expect(isDate(text)).toBe(true));
  test.each([
    '1900-02-29',
    '2031-02-30',
    '2011-11-31',
    '2011-13-01',
    '2011-00-10',
    '2011-10-00',
    '0000-01-01',
    '11-11-18',
    '2011-1-1',
    '2011-11-18T00:00',
    ' 2011-11-18',
    '20111118',
    '+002011-11-18',
  ])('%s is none', (text) => expect(isDate(text)).toBe(false));

  test('every day of 400 years, and nothing between them', () => {
    for (let day = Date.UTC(1900, 0, 1); day < Date.UTC(2300, 0, 1); day += 86_400_000) {
      const text = new Date(day).toISOString().slice(0, 10);
      if (!isDate(text)) throw new Error(`${text} is a date`);
    }
    for (const month of ['02', '04', '06', '09', '11'])
      expect(isDate(`2031-${month}-31`)).toBe(false);
  });
});

describe('e-mail', () => {
  // RFC 3696 section 3 (as corrected by erratum 1690) gives valid ones; quoted local parts are what HTML leaves out on purpose.
  test.each([
    'user+mailbox@example.com',
    'customer/department=shipping@example.com',
    '$A12345@example.com',
    '!def!xyz%abc@example.com',
    '_somename@example.com',
  ])('%s is one', (text) => expect(isEmail(text)).toBe(true));
  test.each([
    '"Abc\\@def"@example.com',
    '"Fred Bloggs"@example.com',
    'Fred Bloggs@example.com',
    'example.com',
  ])('%s is none for HTML', (text) => expect(isEmail(text)).toBe(false));
});

describe('web address', () => {
  // What HTML asks of a URL field is what the parser of the WHATWG URL standard takes without a base; the examples are
  // those of its section 4.5, "URL parsing": https://url.spec.whatwg.org/#url-parsing
  const field = { ...text('link'), format: 'url' } as const;
  const isOne = (typed: string) => kindOf(field).check(typed, field, () => true) === null;
  test.each([
    'https:example.org',
    'https://////example.com///',
    'https://example.com/././foo',
    'hello:world',
    'file:///C|/demo',
    'https://EXAMPLE.com/../x',
    'https://example.org//',
  ])('%s is one', (typed) => expect(isOne(typed)).toBe(true));
  test.each([
    'https://ex ample.org/',
    'example',
    'https://example.com:demo',
    'http://[www.example.com]/',
    'https://exa%23mple.org',
    'https://#fragment',
    'https://:443',
  ])('%s is none', (typed) => expect(isOne(typed)).toBe(false));
});

describe('CSV', () => {
  const columns = ['field_a', 'field_b', 'field_c'].map((name) => ({
    name,
    kind: 'text' as const,
  }));
  const read = (body: string) => {
    const errors: FileError[] = [];
    const rows = readRows(
      't.csv',
      `field_a,field_b,field_c\r\n${body}`,
      { key: 'field_a', columns },
      errors,
    );
    return { rows: rows.map((row) => columns.map(({ name }) => row[name])), errors };
  };

  // RFC 4180, section 2, the examples of its rules 1, 2, 5, 6 and 7.
  test.each([
    [
      'rule 1',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      'rule 2',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      'rule 5',
      '"aaa","bbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      'rule 6',
      '"aaa","b\r\nbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'b\r\nbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['rule 7', '"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]],
  ])('%s', (_rule, body, rows) => expect(read(body)).toEqual({ rows, errors: [] }));

  test('a line with too few cells names its line', () => {
    expect(read('aaa,bbb').errors).toMatchObject([{ line: 2 }]);
  });

  test('what is written is read back, whatever is in the cells', () => {
    const cell = fc.string({ minLength: 1 }).filter((text) => text.trim() === text);
    fc.assert(
      fc.property(fc.uniqueArray(cell, { minLength: 1, maxLength: 5 }), cell, (keys, other) => {
        const rows = keys.map((key) => ({ field_a: key, field_b: other, field_c: null }));
        const text = writeRows(columns, rows, { formulas: true });
        const errors: FileError[] = [];
        expect(readRows('t.csv', text, { key: 'field_a', columns }, errors)).toEqual(rows);
        expect(errors).toEqual([]);
        expect((parse(text) as string[][]).length).toBe(rows.length + 1);
      }),
      { seed: 20310502, numRuns: 300 },
    );
  });
});
