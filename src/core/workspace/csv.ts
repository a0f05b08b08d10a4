/**
 * Tables as CSV (RFC 4180): reading rows, with every bad cell named by line and column, and guessing the columns of a
 * file that nobody has described yet.
 */
import { ERRORS_PER_FILE, TABLE_COLUMNS, TABLE_LINES } from '../limits';
import { parse as parseCsv } from 'csv-parse/sync';
import type { CellValue, TableRow, TableShape } from '../form/table';
import {
  cellsInWords,
  delimiterOf,
  readCell,
  spellingOf,
  STANDARD,
  type Spelling,
} from './csv-spelling';
import type { FileError } from './json';
import type { ScalarKind } from '../form/scalar';

function tooMany(file: string, columns: number, errors: FileError[]): boolean {
  if (columns <= TABLE_COLUMNS) return false;
  errors.push({
    file,
    line: 1,
    path: [],
    says: `there are ${columns} columns; a table has at most ${TABLE_COLUMNS}`,
  });
  return true;
}

type CsvLine = { record: string[]; info: { lines: number } };

/** The cells of each line; null, with an error in words, when the text is no CSV. */
export function linesOf(
  file: string,
  text: string,
  delimiter: Spelling['delimiter'],
  errors: FileError[],
): CsvLine[] | null {
  if (hasMoreLines(text, TABLE_LINES)) {
    errors.push({
      file,
      line: TABLE_LINES + 1,
      path: [],
      says: `there are more than ${TABLE_LINES.toLocaleString('en-GB')} lines, which no table may have`,
    });
    return null;
  }
  try {
    const lines = parseCsv(text, { bom: true, info: true, skip_empty_lines: true, delimiter });
    return lines as unknown as CsvLine[];
  } catch (caught) {
    const { code = '', lines: line = 1 } = caught as { code?: string; lines?: number };
    errors.push({ file, line, path: [], says: NO_CSV[code] ?? 'this line cannot be read as CSV' });
    return null;
  }
}

function hasMoreLines(text: string, most: number): boolean {
  let lines = 0;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1))
    if (++lines > most) return true;
  return false;
}

/** What is wrong with a text that is no CSV, by the parser's codes, and what to do. */
const NO_CSV: Readonly<Record<string, string>> = {
  CSV_QUOTE_NOT_CLOSED:
    'a quotation mark is opened and never closed. Close it, or double it where it belongs to the text',
  CSV_INVALID_CLOSING_QUOTE:
    'something stands after a closing quotation mark. Double the quotation marks that belong to the text',
  INVALID_OPENING_QUOTE:
    'a quotation mark stands inside a cell. Put the whole cell in quotation marks and double the one inside',
  CSV_RECORD_INCONSISTENT_FIELDS_LENGTH:
    'this line has more or fewer cells than the first one. A cell with a separator in it stands in quotation marks',
  CSV_MAX_RECORD_SIZE: 'this line is too long',
};

/**
 * Reads the rows of a table from CSV; every bad cell is named by line and column. `names` stand in for the headings;
 * `spelling` is how the file is written, RFC 4180 unless said.
 */
export function readRows(
  file: string,
  text: string,
  shape: Pick<TableShape, 'key' | 'columns'>,
  errors: FileError[],
  names: readonly string[] | null = null,
  spelling: Spelling = STANDARD,
): TableRow[] {
  let left = ERRORS_PER_FILE;
  const error = (line: number, path: (string | number)[], says: string) => {
    if (left-- > 0) errors.push({ file, line, path, says });
    else if (left === -1)
      errors.push({ file, line, path: [], says: 'there are more errors like these' });
  };
  const lines = linesOf(file, text, spelling.delimiter, errors);
  if (lines === null) return [];
  const [header, ...body] = lines;
  if (header === undefined) {
    error(1, [], 'the first line has to name the columns');
    return [];
  }
  const headings = names ?? header.record;
  if (tooMany(file, headings.length, errors)) return [];
  const known = new Map(shape.columns.map((column) => [column.name, column]));
  const columns = headings.map((name) => known.get(name));
  headings.forEach((name, i) => {
    if (columns[i] === undefined) error(1, [name], 'is not a column of this table');
  });
  const named = new Set<string>();
  for (const name of headings) {
    if (named.has(name)) error(1, [name], 'this column is there twice');
    named.add(name);
  }
  for (const column of shape.columns)
    if (!named.has(column.name)) error(1, [column.name], 'this column is missing');
  const keys = new Set<string>();
  return body.map(({ record, info }) => {
    const row: Record<string, CellValue> = {};
    record.forEach((cell, i) => {
      const column = columns[i];
      if (column === undefined) return;
      const value = readCell(cell, column.kind, spelling);
      if (value === undefined)
        error(
          info.lines,
          [column.name],
          `${JSON.stringify(cell)} is not ${cellsInWords(column.kind, spelling)}`,
        );
      else row[column.name] = value;
    });
    const key = String(row[shape.key] ?? '');
    if (key === '') error(info.lines, [shape.key], 'a row needs a key');
    else if (keys.has(key)) error(info.lines, [shape.key], `the key "${key}" is there twice`);
    keys.add(key);
    return row;
  });
}

type Column = TableShape['columns'][number];

/** What a file with a line of headings seems to hold. */
export interface Guess {
  columns: (Column & { heading: string; empty: number })[];
  /** The column whose values are all there and all different, the first of them; null when none is. */
  key: string | null;
  rows: number;
  spelling: Spelling;
}

/**
 * Guesses columns from their headings and cells: a kind fits when every cell that is not empty is of it. How the file is
 * spelled is recognised unless it is told.
 */
export function guessColumns(
  file: string,
  text: string,
  errors: FileError[],
  told: Spelling | null = null,
): Guess | null {
  const delimiter = told?.delimiter ?? delimiterOf(text);
  const lines = linesOf(file, text, delimiter, errors);
  if (lines === null) return null;
  const [headings, ...rows] = lines.map(({ record }) => record);
  if (headings === undefined) {
    errors.push({ file, line: 1, path: [], says: 'the first line has to name the columns' });
    return null;
  }
  const spelling = told ?? spellingOf(delimiter, rows);
  if (tooMany(file, headings.length, errors)) return null;
  const taken = new Set<string>();
  const columns = headings.map((heading, i) => {
    const cells = rows.map((row) => row[i] ?? '');
    const name = columnName(heading, taken);
    taken.add(name);
    const kind: Column['kind'] =
      (['number', 'date', 'yes_no'] as const).find((candidate) =>
        fits(cells, candidate, spelling),
      ) ?? 'text';
    return {
      name,
      heading,
      kind,
      ...(heading.trim() === '' || heading === name ? {} : { label: heading.trim() }),
      empty: cells.filter((cell) => cell === '').length,
    };
  });
  const key =
    columns.find(
      (column, i) => column.empty === 0 && new Set(rows.map((row) => row[i])).size === rows.length,
    )?.name ?? null;
  return { columns, key, rows: rows.length, spelling };
}

function fits(cells: readonly string[], kind: ScalarKind, spelling: Spelling): boolean {
  const given = cells.filter((cell) => cell !== '');
  // A code with a leading zero is no number, though it reads like one.
  if (kind === 'number' && given.some((cell) => /^0\d/.test(cell))) return false;
  return given.length > 0 && given.every((cell) => readCell(cell, kind, spelling) !== undefined);
}

function columnName(heading: string, taken: ReadonlySet<string>): string {
  const stem =
    heading
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^[^a-z]+|_+$/g, '')
      .slice(0, 50) || 'column';
  if (!taken.has(stem)) return stem;
  for (let i = 2; ; i++) if (!taken.has(`${stem}_${i}`)) return `${stem}_${i}`;
}
