/**
 * A table of cases as CSV (RFC 4180) and back: a column for the title, one for each input and, behind an arrow, one for
 * each expectation. Values stand as JSON; texts may stand bare.
 */
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { CASES_PER_SCENARIO } from '../limits';
import type { Value } from '../form/value';
import { CasesSchema, type Cases } from './definition';

const ARROW = '→ ';

export function casesAsCsv({ inputs, expected, rows }: Cases): string {
  return stringify([
    ['title', ...inputs, ...expected.map((column) => `${ARROW}${column}`)],
    ...rows.map((row) => [row.title ?? '', ...row.inputs.map(cell), ...row.expected.map(cell)]),
  ]);
}

/** A text that reads as JSON stands in quotes, so that it comes back as the text that it is. */
function cell(value: Value): string {
  if (value === null) return '';
  return typeof value === 'string' && !readsAsJson(value) && value !== ''
    ? value
    : JSON.stringify(value);
}

function readsAsJson(text: string): boolean {
  try {
    JSON.parse(text);
    return true;
  } catch {
    return false;
  }
}

/** How a cell of the table, written by hand, is read: as JSON where it is some, else as the text; nothing is empty. */
export function readCell(text: string): Value {
  const bare = text.trim();
  if (bare === '') return null;
  try {
    return JSON.parse(bare) as Value;
  } catch {
    return bare;
  }
}

/** Reads a table; the steps after the inputs stay those of `before`. What is wrong is said with its line. */
export function casesFromCsv(text: string, before: Cases | undefined): Cases | { says: string } {
  let lines: string[][];
  try {
    lines = parse(text, {
      bom: true,
      delimiter: [',', ';', '\t'],
      skip_empty_lines: true,
      relax_column_count: true,
    });
  } catch (caught) {
    const { lines: line = 1 } = caught as { lines?: number };
    return {
      says: `Line ${line} cannot be read: a quote is not closed, or stands within a value.`,
    };
  }
  const [head = [], ...rows] = lines;
  const names = head.map((name) => name.trim());
  const isExpected = (name: string) => /^(?:→|->)\s*/.test(name);
  const inputs = names.flatMap((name, i) => (i > 0 && !isExpected(name) ? [name] : []));
  const expected = names.filter(isExpected).map((name) => name.replace(/^(?:→|->)\s*/, ''));
  if (names[0]?.toLowerCase() !== 'title' || inputs.length === 0)
    return {
      says: 'The first line names the columns: title, then the inputs, then each expectation behind an arrow, such as “title,length,→ pilot.required”.',
    };
  if (rows.length > CASES_PER_SCENARIO)
    return { says: `There are ${rows.length} rows; a table has at most ${CASES_PER_SCENARIO}.` };
  const wrong = rows.findIndex((row) => row.length !== names.length);
  if (wrong >= 0)
    return {
      says: `Line ${wrong + 2} has ${rows[wrong]!.length} values, the first line names ${names.length} columns.`,
    };
  const made = CasesSchema.safeParse({
    inputs,
    ...(before?.steps === undefined ? {} : { steps: before.steps }),
    expected,
    rows: rows.map((row) => ({
      ...(row[0]!.trim() === '' ? {} : { title: row[0]!.trim() }),
      inputs: row.flatMap((value, i) => (i > 0 && !isExpected(names[i]!) ? [readCell(value)] : [])),
      expected: row.flatMap((value, i) => (isExpected(names[i]!) ? [readCell(value)] : [])),
    })),
  });
  return made.success
    ? made.data
    : { says: `${made.error.issues[0]!.path.join('.')} ${made.error.issues[0]!.message}.` };
}
