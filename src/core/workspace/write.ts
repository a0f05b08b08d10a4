/** Writes a workspace as the texts of its folder: one thing per file, stable order, made to be kept in git. */
import { headOf } from './head';
import { stringify } from 'csv-stringify/sync';
import type { Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Service } from '../form/service';
import type { CellValue, Table } from '../form/table';
import type { Cases, Expectation, GridTest, Open, Scenario } from '../scenario/definition';
import type { Step } from '../session/step';
import type { Workspace } from './workspace';

export function writeWorkspace(workspace: Workspace): Map<string, string> {
  const files = new Map<string, string>();
  const json = (path: string, content: object) =>
    files.set(path, `${JSON.stringify(content, null, 2)}\n`);
  for (const { name, text } of workspace.shared) files.set(name, text);
  json('workspace.json', headOf(workspace));
  for (const { name, rows, ...shape } of workspace.tables) {
    json(`tables/${name}.json`, shape);
    files.set(`tables/${name}.csv`, writeRows(shape.columns, rows, { formulas: true }));
  }
  for (const { name, ...shape } of workspace.services)
    json(`services/${name}.json`, serviceInOrder(shape));
  for (const { form, behaviours, scenarios, records } of workspace.forms) {
    const folder = `forms/${form.name}`;
    json(`${folder}/form.json`, form);
    for (const behaviour of behaviours)
      files.set(`${folder}/behaviours/${behaviour.name}`, behaviour.text);
    for (const { name, scenario } of scenarios)
      json(`${folder}/scenarios/${name}.json`, scenarioInOrder(scenario, form));
    const order = partsInOrder(form);
    if (records.length > 0)
      json(`${folder}/records.json`, {
        records: records
          .toSorted(byId)
          .map(({ id, values }) => ({ id, values: valueInOrder(values, order) })),
      });
  }
  return files;
}

/** Records by their numbers, then those with other ids by their letters. */
function byId({ id: a }: { id: string }, { id: b }: { id: string }): number {
  const [first, second] = [a, b].map((id) => (/^\d+$/.test(id) ? Number(id) : Infinity));
  return first! - second! || (a < b ? -1 : a > b ? 1 : 0);
}

/** Parts of a form and columns of its rows as they stand in it. */
function partsInOrder(form: Form): readonly string[] {
  return [
    ...(form.tracks ?? []).map(({ name }) => name),
    ...form.pages.flatMap((page) => [page.name, ...page.sections.map(({ name }) => name)]),
    ...fieldsOf(form).flatMap((field) => [field.name, ...cellsOf(field).map(({ name }) => name)]),
    ...(form.buttons ?? []).map(({ name }) => name),
  ];
}

/**
 * The same object with its keys as they stand in `order`, the others behind them by their letters: nothing else says in
 * which order the keys of a map stand, and one that was kept elsewhere has lost it.
 */
function inOrder<T extends object>(map: T, order: readonly string[]): T {
  const place = (key: string) => {
    const at = order.indexOf(key.replace(/[.[].*$/, ''));
    return at < 0 ? order.length : at;
  };
  return Object.fromEntries(
    Object.entries(map).toSorted(([a], [b]) => place(a) - place(b) || (a < b ? -1 : 1)),
  ) as T;
}

function serviceInOrder<S extends Pick<Service, 'functions'>>(service: S): S {
  const functions = Object.fromEntries(
    Object.entries(inOrder(service.functions, [])).map(([name, of]) => [
      name,
      of.answers.from === 'table'
        ? { ...of, answers: { ...of.answers, where: inOrder(of.answers.where, []) } }
        : of,
    ]),
  );
  return { ...service, functions };
}

function scenarioInOrder(scenario: Scenario, form: Form): Scenario {
  const order = partsInOrder(form);
  const { title, startsAs, open, steps, cases, grid } = scenario;
  return {
    title,
    ...(startsAs === undefined ? {} : { startsAs }),
    ...(open === undefined ? {} : { open: openInOrder(open) }),
    steps: steps.map((step) =>
      'expect' in step
        ? { expect: expectationInOrder(step.expect, order) }
        : stepInOrder(step, order),
    ),
    ...(cases === undefined ? {} : { cases: casesInOrder(cases, order) }),
    ...(grid === undefined ? {} : { grid: gridInOrder(grid, order) }),
  };
}

function openInOrder(open: Open): Open {
  const { launch, services } = open;
  return {
    ...open,
    ...(launch === undefined ? {} : { launch: inOrder(launch, []) }),
    ...(services === undefined ? {} : { services: inOrder(services, []) }),
  };
}

function stepInOrder<S extends Step>(step: S, order: readonly string[]): S {
  return Object.fromEntries(
    Object.entries(step).map(([key, value]) => [key, valueInOrder(value, order)]),
  ) as S;
}

function casesInOrder({ inputs, steps, expected, rows }: Cases, order: readonly string[]): Cases {
  return {
    inputs,
    ...(steps === undefined ? {} : { steps: steps.map((step) => stepInOrder(step, order)) }),
    expected,
    rows: rows.map((row) => ({
      ...(row.title === undefined ? {} : { title: row.title }),
      inputs: row.inputs.map((value) => valueInOrder(value, order)),
      expected: row.expected.map((value) => valueInOrder(value, order)),
    })),
  };
}

function gridInOrder(grid: GridTest, order: readonly string[]): GridTest {
  const { axes, strength, parts, accepted } = grid;
  const outcome = (one: GridTest['accepted']['base']) =>
    inOrder(
      Object.fromEntries(
        Object.entries(one).map(([part, aspects]) => [part, valueInOrder(aspects, order)]),
      ),
      order,
    );
  return {
    axes: axes.map(({ input, values }) => ({
      input,
      values: values.map((value) => valueInOrder(value, order)),
    })),
    ...(strength === undefined ? {} : { strength }),
    ...(parts === undefined ? {} : { parts }),
    accepted: {
      base: outcome(accepted.base),
      outcomes: accepted.outcomes.map(outcome),
      rows: accepted.rows,
    },
  };
}

/** What is expected of parts, as they stand in the form; their aspects stand as the schema has them. */
function expectationInOrder(expectation: Expectation, order: readonly string[]): Expectation {
  const parts = Object.entries(expectation).map(([part, wanted]) => [
    part,
    typeof wanted === 'object' && wanted !== null && !Array.isArray(wanted)
      ? Object.fromEntries(
          Object.entries(wanted).map(([aspect, value]) => [
            aspect,
            HOLD_VALUES.has(aspect) ? valueInOrder(value, order) : value,
          ]),
        )
      : wanted,
  ]);
  return inOrder(Object.fromEntries(parts) as Expectation, order);
}

/** What of an expectation holds values of fields, and not words of its own. */
const HOLD_VALUES = new Set(['value', 'stray', 'cells', 'values']);

/** Values of fields, with those in rows. */
function valueInOrder<T>(value: T, order: readonly string[]): T {
  if (Array.isArray(value)) return value.map((item) => valueInOrder<unknown>(item, order)) as T;
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).map(([key, one]) => [key, valueInOrder(one, order)]);
  return inOrder(Object.fromEntries(entries) as T & object, order);
}

/** Spreadsheets read a cell that begins like this as a formula (OWASP, "CSV injection"). */
const FORMULA = /^[=+\-@\t\r]/;

/** A text with an apostrophe before it where a spreadsheet would run it. */
export function withoutFormula(text: string): string {
  return FORMULA.test(text) ? `'${text}` : text;
}

/**
 * The rows of a table as CSV (RFC 4180), with the columns named in the first line. Without `formulas` an apostrophe
 * stands before texts that a spreadsheet would run.
 */
export function writeRows(
  columns: Table['columns'],
  rows: Table['rows'],
  { formulas }: { formulas: boolean },
): string {
  const text = (value: string) => (formulas ? value : withoutFormula(value));
  const cell = (value: CellValue | undefined) =>
    typeof value === 'boolean'
      ? value
        ? 'yes'
        : 'no'
      : typeof value === 'string'
        ? text(value)
        : (value ?? '');
  return stringify([
    columns.map((column) => column.name),
    ...rows.map((row) => columns.map((column) => cell(row[column.name]))),
  ]);
}
