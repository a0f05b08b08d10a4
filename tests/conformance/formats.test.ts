/** Formats against the standards' own examples and, for URLs, against an independent implementation (Node's). */
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isDate, isEmail } from '../../src/core/form/formats';
import { isAbsoluteUrl } from '../../src/core/form/url';
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

test('absolute URLs are as Node parses them, on seeded texts', () => {
  // International names go through UTS 46 in Node, which this check leaves out; the texts are ASCII.
  const piece = fc.constantFrom(
    'http',
    'https',
    'ftp',
    'file',
    'x',
    ':',
    '//',
    '/',
    '\\',
    'a',
    'b.c',
    '1.2.3.4',
    '256',
    '0x1',
    '[::1]',
    '[1:2::]',
    '@',
    ':80',
    ':99999',
    '?',
    '#',
    '%41',
    '%',
    ' ',
    '<',
    '..',
    '.',
    '^',
    '|',
    '-',
    '08',
  );
  const texts = fc.oneof(
    fc.array(piece, { maxLength: 8 }).map((pieces) => pieces.join('')),
    fc.webUrl(),
    fc.ipV6().map((ip) => `http://[${ip}]/`),
  );
  fc.assert(
    fc.property(texts, (text) => {
      expect(isAbsoluteUrl(text)).toBe(URL.canParse(text));
    }),
    { seed: 20310502, numRuns: 10_000 },
  );
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
