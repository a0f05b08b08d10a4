/** Editing a table of cases: rows and columns added, removed and changed. Each gives another table. */
import type { Value } from '../form/value';
import type { Cases } from './definition';

/** What a column is about: what a case sets, or what is expected after it. */
export type ColumnKind = 'inputs' | 'expected';

/** A table over one input, with one case that sets nothing. */
export const casesOver = (input: string): Cases => ({
  inputs: [input],
  expected: [],
  rows: [{ inputs: [null], expected: [] }],
});

export function withColumn(cases: Cases, kind: ColumnKind, column: string): Cases {
  return {
    ...cases,
    [kind]: [...cases[kind], column],
    rows: cases.rows.map((row) => ({ ...row, [kind]: [...row[kind], null] })),
  };
}

export function withoutColumn(cases: Cases, kind: ColumnKind, at: number): Cases {
  const without = <T>(list: readonly T[]) => list.filter((_, i) => i !== at);
  return {
    ...cases,
    [kind]: without(cases[kind]),
    rows: cases.rows.map((row) => ({ ...row, [kind]: without(row[kind]) })),
  };
}

export function withCell(
  cases: Cases,
  row: number,
  kind: ColumnKind,
  at: number,
  value: Value,
): Cases {
  const one = cases.rows[row]!;
  return { ...cases, rows: cases.rows.with(row, { ...one, [kind]: one[kind].with(at, value) }) };
}

/** An empty title is none; a case without one is called by its inputs. */
export function withTitle(cases: Cases, row: number, title: string): Cases {
  const { inputs, expected } = cases.rows[row]!;
  return {
    ...cases,
    rows: cases.rows.with(row, { ...(title === '' ? {} : { title }), inputs, expected }),
  };
}

export function withCase(cases: Cases): Cases {
  const empty = {
    inputs: cases.inputs.map(() => null),
    expected: cases.expected.map(() => null),
  };
  return { ...cases, rows: [...cases.rows, empty] };
}

export function withoutCase(cases: Cases, row: number): Cases {
  return { ...cases, rows: cases.rows.filter((_, i) => i !== row) };
}
