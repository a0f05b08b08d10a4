/** Carrying another name of a part, or another key of its options, through scenarios and values. Without the compiler, so that pages can do it too. */
import type { Value, Values } from '../form/value';
import type { Expectation, Scenario, ScenarioStep } from '../scenario/definition';
import { isExpect } from '../scenario/beginning';
import type { Outcome } from '../scenario/grid';
import { NAMING_KEYS } from '../scenario/naming';
import type { Step } from '../session/step';
import type { PartName, PartSort } from './edit';

/** Whether a scenario's address names a part: `cargo[0].weight` names `cargo.weight`, and `cargo` too when that is asked. */
export function addresses(address: string, part: PartName, sort: PartSort): boolean {
  const [owner, cell] = address.replace(/\[\d+\]/, '').split('.');
  return sort === 'cell' ? `${owner}.${cell}` === part : owner === part;
}

/** A scenario whose steps and expectations use the new name of the part. */
export function renameInScenario(
  scenario: Scenario,
  part: PartName,
  to: string,
  sort: PartSort,
): Scenario {
  const rename = (address: string) =>
    addresses(address, part, sort)
      ? sort === 'cell'
        ? address.replace(/\.[^.]+$/, `.${to}`)
        : address.replace(/^[^.[]+/, to)
      : address;
  const keys = <T>(named: Readonly<Record<string, T>>) =>
    Object.fromEntries(Object.entries(named).map(([key, value]) => [rename(key), value]));
  const inStep = (step: ScenarioStep): ScenarioStep => {
    if (isExpect(step))
      return { expect: renameInExpectation(step.expect, rename, keys, part, to, sort) };
    const renamed = Object.fromEntries(
      Object.entries(step).map(([key, value]) => [
        key,
        NAMING_KEYS.has(key) && typeof value === 'string' ? rename(value) : value,
      ]),
    );
    if ('addRow' in step && step.with !== undefined) {
      const row = (given: Values) => renameInRow(given, step.addRow, part, to, sort);
      renamed.with = Array.isArray(step.with)
        ? (step.with as readonly Values[]).map(row)
        : row(step.with as Values);
    }
    return renamed as ScenarioStep;
  };
  return {
    ...scenario,
    steps: scenario.steps.map(inStep),
    ...inTables(scenario, {
      input: rename,
      column: (column) => (column.startsWith('@') ? column : renameColumn(column, part, to, sort)),
      value: (_, value) => value,
      step: inStep,
      outcome: (one) => keys(one) as Outcome,
    }),
  };
}

/** What becomes of the pieces of a table and a grid. */
interface InTables {
  input(name: string): string;
  column(name: string): string;
  /** A value of an input or in a column, under its former name. */
  value(name: string, value: Value): Value;
  step(step: ScenarioStep): ScenarioStep;
  outcome(outcome: Outcome): Outcome;
}

/** The table and the grid of a scenario with all of their pieces changed. */
function inTables({ cases, grid }: Scenario, change: InTables): Pick<Scenario, 'cases' | 'grid'> {
  return {
    ...(cases === undefined
      ? {}
      : {
          cases: {
            inputs: cases.inputs.map(change.input),
            ...(cases.steps === undefined ? {} : { steps: cases.steps.map(change.step) as Step[] }),
            expected: cases.expected.map(change.column),
            rows: cases.rows.map((row) => ({
              ...row,
              inputs: row.inputs.map((value, i) => change.value(cases.inputs[i]!, value)),
              expected: row.expected.map((value, i) => change.value(cases.expected[i]!, value)),
            })),
          },
        }),
    ...(grid === undefined
      ? {}
      : {
          grid: {
            ...grid,
            axes: grid.axes.map(({ input, values }) => ({
              input: change.input(input),
              values: values.map((value) => change.value(input, value)),
            })),
            ...(grid.parts === undefined ? {} : { parts: grid.parts.map(change.input) }),
            accepted: {
              base: change.outcome(grid.accepted.base),
              outcomes: grid.accepted.outcomes.map(change.outcome),
              rows: grid.accepted.rows,
            },
          },
        }),
  };
}

/** `pilot` and `pilot.required` name a field; `cargo[0].weight` and `cargo[0].weight.required` a cell. */
function renameColumn(column: string, part: PartName, to: string, sort: PartSort): string {
  const [, rows, place, rest = ''] = /^([^.[]+)(\[\d+\])?(.*)$/.exec(column)!;
  if (sort !== 'cell') return rows === part ? `${to}${place ?? ''}${rest}` : column;
  const [, cell, aspect = ''] = /^\.([^.]+)(\..+)?$/.exec(rest) ?? [];
  return place !== undefined && `${rows}.${cell}` === part
    ? `${rows}${place}.${to}${aspect}`
    : column;
}

function renameInExpectation(
  expect: Expectation,
  rename: (address: string) => string,
  keys: <T>(named: Readonly<Record<string, T>>) => Record<string, T>,
  part: PartName,
  to: string,
  sort: PartSort,
): Expectation {
  const renamed = keys(expect) as Record<string, unknown>;
  for (const [address, wanted] of Object.entries(expect)) {
    if (address.startsWith('@')) continue;
    const { cells } = wanted as { cells?: Values };
    if (cells !== undefined)
      renamed[rename(address)] = {
        ...(wanted as object),
        cells: renameInRow(cells, address.replace(/\[\d+\]/, ''), part, to, sort),
      };
  }
  const submit = expect['@submit'];
  if (submit !== undefined) {
    renamed['@submit'] = {
      ...submit,
      ...(submit.stoppedBy == null ? {} : { stoppedBy: rename(submit.stoppedBy) }),
      ...(submit.values === undefined
        ? {}
        : {
            values:
              sort === 'cell' ? renameInValues(submit.values, part, to, sort) : keys(submit.values),
          }),
      ...(submit.without === undefined ? {} : { without: submit.without.map(rename) }),
    };
  }
  const page = expect['@page'];
  if (typeof page === 'string') renamed['@page'] = rename(page);
  return renamed as Expectation;
}

function renameInRow(
  row: Values,
  rows: string,
  part: PartName,
  to: string,
  sort: PartSort,
): Values {
  if (sort !== 'cell') return row;
  return Object.fromEntries(
    Object.entries(row).map(([cell, value]) => [`${rows}.${cell}` === part ? to : cell, value]),
  );
}

/** A record's values under the new name. */
export function renameInValues(values: Values, part: PartName, to: string, sort: PartSort): Values {
  const [owner] = part.split('.');
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => {
      if (sort === 'field') return [name === part ? to : name, value];
      if (sort !== 'cell' || name !== owner || !Array.isArray(value)) return [name, value];
      return [
        name,
        (value as Values[]).map((row) => renameInRow(row, owner, part, to, sort)) as Value,
      ];
    }),
  );
}

/** A value with another key in place of one, also among several. */
export function rekeyed(value: Value, key: string, to: string): Value {
  if (value === key) return to;
  return Array.isArray(value) ? value.map((one) => (one === key ? to : one)) : value;
}

/** A scenario whose steps and expectations hold the new key. */
export function rekeyInScenario(
  scenario: Scenario,
  part: PartName,
  key: string,
  to: string,
  sort: PartSort,
): Scenario {
  const isPart = (address: string) => addresses(address, part, sort);
  const change = (value: Value) => rekeyed(value, key, to);
  const inRow = (rows: string, row: Values): Values =>
    inValues(row, (name) => `${rows}.${name}` === part, change);
  const inStep = (step: ScenarioStep): ScenarioStep => {
    if (isExpect(step)) return { expect: inExpectation(step.expect, isPart, change, inRow, part) };
    if ('addRow' in step) {
      if (step.with === undefined) return step;
      const given = step.with;
      return {
        ...step,
        with: Array.isArray(given)
          ? (given as Values[]).map((row) => inRow(step.addRow, row))
          : inRow(step.addRow, given as Values),
      };
    }
    const address =
      'set' in step
        ? step.set
        : 'input' in step
          ? step.input
          : 'fromChild' in step
            ? step.fromChild
            : null;
    return address !== null && isPart(address) && 'to' in step
      ? ({ ...step, to: change(step.to as Value) } as ScenarioStep)
      : step;
  };
  return {
    ...scenario,
    steps: scenario.steps.map(inStep),
    ...inTables(scenario, {
      input: (name) => name,
      column: (name) => name,
      value: (name, value) => (isPart(name) ? change(value) : value),
      step: inStep,
      outcome: (one) =>
        Object.fromEntries(
          Object.entries(one).map(([address, aspects]) => [
            address,
            isPart(address) ? inValues(aspects, (aspect) => HOLDING.has(aspect), change) : aspects,
          ]),
        ),
    }),
  };
}

function inValues(
  values: Values,
  isIt: (name: string) => boolean,
  change: (value: Value) => Value,
): Values {
  return Object.fromEntries(
    Object.entries(values).map(([name, value]) => [name, isIt(name) ? change(value) : value]),
  );
}

/** Aspects that hold keys. */
const HOLDING = new Set(['value', 'options', 'stage', 'stray']);

function inExpectation(
  expect: Expectation,
  isPart: (address: string) => boolean,
  change: (value: Value) => Value,
  inRow: (rows: string, row: Values) => Values,
  part: PartName,
): Expectation {
  const [owner, cell] = part.split('.') as [string, string?];
  const next: Record<string, unknown> = {};
  for (const [address, wanted] of Object.entries(expect)) {
    if (address.startsWith('@')) {
      next[address] = wanted;
      continue;
    }
    const aspects = inValues(
      wanted as Values,
      (aspect) => isPart(address) && HOLDING.has(aspect),
      change,
    ) as Record<string, unknown>;
    const rows = address.replace(/\[\d+\]/, '');
    if (aspects.cells !== undefined) aspects.cells = inRow(rows, aspects.cells as Values);
    next[address] = aspects;
  }
  const submit = expect['@submit'];
  if (submit?.values !== undefined)
    next['@submit'] = {
      ...submit,
      values: inValues(
        submit.values,
        (name) => name === owner,
        (value) =>
          cell === undefined
            ? change(value)
            : Array.isArray(value)
              ? ((value as Values[]).map((row) => inRow(owner, row)) as Value)
              : value,
      ),
    };
  return next as Expectation;
}
