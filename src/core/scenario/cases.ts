/** A scenario over a table of values: its columns, what a row expects, and the table as CSV. */
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import { PartExpectation, type Cases, type Expectation } from './definition';
import { addressesOf } from './addresses';

/** What a column of expectations is about: a part with an aspect, or a member of `@submit` and its like. */
export interface CaseColumn {
  part: string;
  aspect: string;
}

const ASPECT_NAMES: ReadonlySet<string> = new Set(Object.keys(PartExpectation.shape));

/** `pilot` is its value, `pilot.required` an aspect, `cargo[0].weight` the value of a cell. */
export function readColumn(column: string, form: Form): CaseColumn {
  const whole = { part: column, aspect: 'value' };
  if (column.startsWith('@') || addressesOf(form).has(column.replace(/\[\d+\]/, '[]')))
    return whole;
  const dot = column.lastIndexOf('.');
  const aspect = column.slice(dot + 1);
  return dot > 0 && ASPECT_NAMES.has(aspect) ? { part: column.slice(0, dot), aspect } : whole;
}

const SUBMIT = /^@submit\.(saved|stoppedBy)$/;

/** What a row expects, as an expectation of a scenario. */
export function expectationOfRow(cases: Cases, values: readonly Value[], form: Form): Expectation {
  const expect: Record<string, unknown> = {};
  cases.expected.forEach((column, i) => {
    const value = values[i] ?? null;
    const submit = SUBMIT.exec(column);
    if (submit !== null) {
      expect['@submit'] = { ...(expect['@submit'] as object | undefined), [submit[1]!]: value };
      return;
    }
    if (column.startsWith('@')) {
      expect[column] = value;
      return;
    }
    const { part, aspect } = readColumn(column, form);
    expect[part] = { ...(expect[part] as object | undefined), [aspect]: value };
  });
  return expect as Expectation;
}

/** How a case is called: by its title, else by its values. */
export function caseTitle(cases: Cases, index: number): string {
  const row = cases.rows[index]!;
  return (
    row.title ??
    cases.inputs.map((input, i) => `${input} ${JSON.stringify(row.inputs[i])}`).join(', ')
  );
}
