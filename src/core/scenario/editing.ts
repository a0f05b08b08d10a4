/** Editing a scenario: its entries, what is taken over from a session, and what came accepted as what is expected. */
import type { Form } from '../form/definition';
import type { Value } from '../form/value';
import type { Answer, Step } from '../session/step';
import { ASPECTS, spelled, type ExpectedAspect } from './aspects';
import { isExpect } from './beginning';
import { readColumn } from './cases';
import type { Expectation, PartExpectation, Scenario, ScenarioStep } from './definition';
import { folded, unfolded } from './grid';
import { expectationOf } from './record';
import type { Miss } from './run-scenario';
import { partSeen, seenAt, type Seen } from './seen';

/** How many steps of its own a scenario has done before an entry. */
export function stepsBefore(scenario: Scenario, entry: number): number {
  return scenario.steps.slice(0, entry).filter((one) => !isExpect(one)).length;
}

export function withEntries(
  scenario: Scenario,
  change: (entries: ScenarioStep[]) => ScenarioStep[],
): Scenario {
  return { ...scenario, steps: change([...scenario.steps]) };
}

/** The entries with one of them at another place. */
export function movedTo<T>(entries: readonly T[], from: number, to: number): T[] {
  const moved = [...entries];
  const [one] = moved.splice(from, 1);
  if (one !== undefined) moved.splice(to, 0, one);
  return moved;
}

/** What a step changed, from the answers of the opening and of each step up to it. */
export function whatStepChanged(
  step: Step,
  form: Form,
  answers: readonly Answer[],
  at: number,
): Expectation {
  return expectationOf(step, form, seenAt(answers, at - 1), seenAt(answers, at), answers[at]!);
}

const WHOLE: readonly ExpectedAspect[] = [
  'shown',
  'locked',
  'required',
  'value',
  'problem',
  'stage',
];

/** Every part as it stands, in what people meet of it. */
export function wholeState(seen: Seen): Expectation {
  const expect: Record<string, unknown> = {};
  for (const [name, part] of Object.entries(seen.parts)) {
    const wanted: Record<string, Value> = {};
    for (const aspect of WHOLE) {
      const value =
        aspect === 'value' && seen.rows[name] !== undefined ? undefined : spelled(part, aspect);
      if (value !== undefined) wanted[aspect] = value;
    }
    expect[name] =
      seen.rows[name] === undefined ? wanted : { ...wanted, count: seen.rows[name].order.length };
  }
  if (seen.page !== null) expect['@page'] = seen.page;
  return expect as Expectation;
}

/** The aspects that a part has now, in the order of scenarios, to choose from. */
export function aspectsOf(seen: Seen, form: Form, part: string): ExpectedAspect[] {
  const state = partSeen(seen, form, part);
  return state === undefined
    ? []
    : ASPECTS.filter((aspect) => aspect === 'options' || spelled(state, aspect) !== undefined);
}

/** An aspect of a part as it is now. */
export function valueNow(seen: Seen, form: Form, part: string, aspect: ExpectedAspect): Value {
  const state = partSeen(seen, form, part);
  return state === undefined ? null : (spelled(state, aspect) ?? null);
}

/** An expectation with an aspect of a part set, or left out for undefined. */
export function withAspect(
  expect: Expectation,
  part: string,
  aspect: string,
  value: Value | undefined,
): Expectation {
  const { [part]: own, ...others } = expect as Record<string, PartExpectation>;
  // A part may be called `constructor`, which every object inherits.
  const before = Object.hasOwn(expect, part) ? own : undefined;
  const { [aspect]: _, ...rest } = (before ?? {}) as Record<string, unknown>;
  const next = value === undefined ? rest : { ...rest, [aspect]: value };
  if (Object.keys(next).length === 0) return others as Expectation;
  // At its place, where it had one.
  return Object.fromEntries(
    before === undefined
      ? [...Object.entries(others), [part, next]]
      : Object.entries(expect).map(([name, wanted]) => [name, name === part ? next : wanted]),
  ) as Expectation;
}

/** Whether what came instead can be taken for what is expected. Errors and refusals cannot: they are faults first. */
export function canAccept({ part, actual }: Miss): boolean {
  return actual !== undefined && part !== '@open' && part !== '@errors' && part !== '@refused';
}

/** The scenario expecting what came, for these misses. */
export function accepting(scenario: Scenario, misses: readonly Miss[], form: Form): Scenario {
  return misses.filter(canAccept).reduce((one, miss) => acceptingOne(one, miss, form), scenario);
}

function acceptingOne(scenario: Scenario, miss: Miss, form: Form): Scenario {
  const { entry, at, part, aspect } = miss;
  const actual = miss.actual!;
  const { cases, grid } = scenario;
  if (entry < scenario.steps.length)
    return withEntries(scenario, (entries) =>
      entries.map((one, i) =>
        i === entry && isExpect(one) ? { expect: expecting(one.expect, miss) } : one,
      ),
    );
  if (at === null) return scenario;
  if (cases !== undefined) {
    const column = cases.expected.findIndex((name) => {
      const read = readColumn(name, form);
      return part.startsWith('@')
        ? name === (aspect === null ? part : `${part}.${aspect}`)
        : read.part === part && read.aspect === (aspect ?? 'value');
    });
    if (column < 0) return scenario;
    return {
      ...scenario,
      cases: {
        ...cases,
        rows: cases.rows.map((row, i) =>
          i === at ? { ...row, expected: row.expected.with(column, actual) } : row,
        ),
      },
    };
  }
  if (grid === undefined) return scenario;
  const [name, of] = part.startsWith('@') ? ['@form', part.slice(1)] : [part, aspect!];
  const combinations = grid.accepted.rows.map(([places, outcome], i) => {
    const whole = unfolded(grid.accepted, outcome);
    return {
      places,
      outcome: i === at ? { ...whole, [name]: { ...whole[name], [of]: actual } } : whole,
    };
  });
  return { ...scenario, grid: { ...grid, accepted: folded(combinations) } };
}

function expecting(expect: Expectation, { part, aspect, actual }: Miss): Expectation {
  if (part === '@submit' && aspect !== null) {
    const submit = expect['@submit'] ?? {};
    const field = /^values\.(.+)$/.exec(aspect)?.[1];
    return {
      ...expect,
      '@submit':
        field === undefined
          ? { ...submit, [aspect]: actual }
          : { ...submit, values: { ...submit.values, [field]: actual! } },
    } as Expectation;
  }
  if (part.startsWith('@')) return { ...expect, [part]: actual } as Expectation;
  return withAspect(expect, part, aspect ?? 'value', actual);
}

/**
 * Expects what a step changed. Expects also that nothing else changed, unless steps before it would count too. `before` is
 * the scenario up to the step.
 */
export function expectChanged(
  before: Pick<Scenario, 'steps' | 'startsAs'>,
  step: Step,
  form: Form,
  answers: readonly Answer[],
  at: number,
): ScenarioStep {
  const changed = whatStepChanged(step, form, answers, at);
  const expect = isCheckedUpTo(before) ? { ...changed, '@nothingElse': true } : changed;
  return { expect: expect as Expectation };
}

/** Whether no step was done since the last expectation that nothing else changed, or since the opening. */
function isCheckedUpTo({ steps, startsAs }: Pick<Scenario, 'steps' | 'startsAs'>): boolean {
  const last = steps.findLastIndex((one) => !isExpect(one));
  return (
    (last === -1 && startsAs === undefined) ||
    steps.slice(last + 1).some((one) => isExpect(one) && one.expect['@nothingElse'] === true)
  );
}
