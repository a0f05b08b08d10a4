/**
 * A table of cases as CSV (RFC 4180) and back: a column for the title, one for each input and, behind an arrow, one for
 * each expectation. Values are written by their kind (`written.ts`).
 */
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { CASES_PER_SCENARIO } from '../limits';
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import { readColumn } from './cases';
import { CasesSchema, type Cases } from './definition';
import { readWritten, SPELLED, spellingOf, written } from './written';
import type { Spelling } from '../form/traits';

const ARROW = '→ ';

export function casesAsCsv({ inputs, expected, rows }: Cases, form: Form): string {
  const spelled = spellings(inputs, expected, form);
  return stringify([
    ['title', ...inputs, ...expected.map((column) => `${ARROW}${column}`)],
    ...rows.map((row) => [
      row.title ?? '',
      ...row.inputs.map((value, i) => written(value, spelled.inputs[i]!)),
      ...row.expected.map((value, i) => written(value, spelled.expected[i]!)),
    ]),
  ]);
}

const spellings = (inputs: readonly string[], expected: readonly string[], form: Form) => ({
  inputs: inputs.map((input) => spellingOf(form, input)),
  expected: expected.map((column) => {
    const { part, aspect } = readColumn(column, form);
    return spellingOf(form, part, aspect);
  }),
});

/** Reads a table; the steps after the inputs stay those of `before`. What is wrong is said with its line. */
export function casesFromCsv(
  text: string,
  before: Cases | undefined,
  form: Form,
): Cases | { says: string } {
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
      says: 'The first line names the columns: title, then the inputs, then each expectation behind an arrow, such as “title,amount,→ note.required”.',
    };
  if (rows.length > CASES_PER_SCENARIO)
    return { says: `There are ${rows.length} rows; a table has at most ${CASES_PER_SCENARIO}.` };
  const wrong = rows.findIndex((row) => row.length !== names.length);
  if (wrong >= 0)
    return {
      says: `Line ${wrong + 2} has ${rows[wrong]!.length} values, the first line names ${names.length} columns.`,
    };
  const spelled = spellings(inputs, expected, form);
  const unread: string[] = [];
  const read = (cells: readonly string[], as: readonly Spelling[], line: number): Value[] =>
    cells.map((cell, i) => {
      const value = readWritten(cell, as[i]!);
      if (value === undefined)
        unread.push(`Line ${line}: “${cell}” stands where there has to be ${SPELLED[as[i]!]}.`);
      return value ?? null;
    });
  const made = CasesSchema.safeParse({
    inputs,
    ...(before?.steps === undefined ? {} : { steps: before.steps }),
    expected,
    rows: rows.map((row, i) => ({
      ...(row[0]!.trim() === '' ? {} : { title: row[0]!.trim() }),
      inputs: read(
        row.filter((_, at) => at > 0 && !isExpected(names[at]!)),
        spelled.inputs,
        i + 2,
      ),
      expected: read(
        row.filter((_, at) => isExpected(names[at]!)),
        spelled.expected,
        i + 2,
      ),
    })),
  });
  if (!made.success)
    return { says: `${made.error.issues[0]!.path.join('.')} ${made.error.issues[0]!.message}.` };
  return unread.length > 0 ? { says: unread[0]! } : made.data;
}
