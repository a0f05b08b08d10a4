/**
 * How a CSV file is spelled: what separates its cells, its decimals, how its dates are written. Offices write what their
 * spreadsheet and their country do; a workspace's own files are RFC 4180 with decimal points and dates as of ISO 8601.
 */
import { readNumber } from '../form/number-style';
import * as z from 'zod';
import { readDate } from '../form/date-style';
import { SCALARS, type ScalarKind } from '../form/scalar';
import type { CellValue } from '../form/table';

export const SpellingSchema = z.strictObject({
  delimiter: z.enum([',', ';', '\t', '|']),
  decimal: z.enum(['.', ',']),
  /** The order of day, month and year, whatever stands between them. */
  dates: z.enum(['ymd', 'dmy', 'mdy']),
});
export type Spelling = z.infer<typeof SpellingSchema>;

/** How the files of a workspace are spelled. */
export const STANDARD: Spelling = { delimiter: ',', decimal: '.', dates: 'ymd' };

/** Lines that are looked at to find out what separates their cells. */
const LINES_LOOKED_AT = 50;

/** The separator that parts every line into as many cells as the first, more than one; the comma where none does. */
export function delimiterOf(text: string): Spelling['delimiter'] {
  const lines = outsideQuotes(text)
    .split(/\r\n|\r|\n/)
    .filter((line) => line.trim() !== '')
    .slice(0, LINES_LOOKED_AT);
  const counted = ([';', '\t', ',', '|'] as const).map((delimiter) => {
    const counts = lines.map((line) => line.split(delimiter).length - 1);
    const first = counts[0] ?? 0;
    return { delimiter, first, alike: counts.filter((count) => count === first).length };
  });
  const best = counted
    .filter(({ first }) => first > 0)
    .sort((a, b) => b.alike - a.alike || b.first - a.first)[0];
  return best?.delimiter ?? ',';
}

/** The beginning of a text without what stands in quotation marks. */
function outsideQuotes(text: string): string {
  return text.slice(0, 200_000).replace(/"(?:[^"]|"")*"/g, '""');
}

/** Decimals and dates as the cells of a file have them. */
export function spellingOf(
  delimiter: Spelling['delimiter'],
  rows: readonly (readonly string[])[],
): Spelling {
  let [points, commas, dayFirst, monthFirst] = [0, 0, 0, 0];
  for (const row of rows)
    for (const cell of row) {
      const text = cell.trim();
      if (/^-?(?:\d+|\d{1,3}(?:[ '\u00a0\u202f.]\d{3})+),\d+$/.test(text)) commas++;
      else if (/^-?(?:\d+|\d{1,3}(?:[ '\u00a0\u202f,]\d{3})+)\.\d+$/.test(text)) points++;
      const date = DATE.exec(text);
      if (date === null || date[1]!.length === 4) continue;
      if (Number(date[1]) > 12) dayFirst++;
      else if (Number(date[3]) > 12) monthFirst++;
      // Between points the day stands first wherever dates are written so; a slash may mean either.
      else if (date[2] === '.') dayFirst++;
    }
  return {
    delimiter,
    decimal: commas > points && delimiter !== ',' ? ',' : '.',
    dates:
      monthFirst > dayFirst ? 'mdy' : dayFirst + monthFirst > 0 || hasShort(rows) ? 'dmy' : 'ymd',
  };
}

const DATE = /^(\d{1,4})([./-])(\d{1,2})\2(\d{1,4})$/;

/** Whether there is a date that does not begin with its year. */
function hasShort(rows: readonly (readonly string[])[]): boolean {
  return rows.some((row) =>
    row.some((cell) => {
      const date = DATE.exec(cell.trim());
      return date !== null && date[1]!.length <= 2;
    }),
  );
}

/** What the cells of each kind are, in words. */
export function cellsInWords(kind: ScalarKind, { decimal, dates }: Spelling): string {
  if (kind === 'number' && decimal === ',') return 'a number with a decimal comma';
  if (kind === 'date')
    return `a date spelled ${{ ymd: 'YYYY-MM-DD', dmy: 'day, month, year', mdy: 'month, day, year' }[dates]}`;
  return SCALARS[kind].typed;
}

/** Reads a cell; undefined when it is none of that kind. An empty one is null. */
export function readCell(
  cell: string,
  kind: ScalarKind,
  spelling: Spelling,
): CellValue | undefined {
  if (cell === '') return null;
  const numbers = spelling.decimal === ',' ? 'comma' : 'point';
  // A file is of one style, where somebody who types may use the other mark.
  if (kind === 'number') return readNumber(cell, numbers) ?? undefined;
  if (kind === 'date') return readDateOf(cell.trim(), spelling.dates);
  return SCALARS[kind].read(cell, numbers);
}

/** A file whose dates begin with the year has no others. */
function readDateOf(text: string, dates: Spelling['dates']): string | undefined {
  if (dates === 'ymd' && !/^\d{4}\D/.test(text)) return undefined;
  return DATE.test(text) ? (readDate(text, dates) ?? undefined) : undefined;
}
