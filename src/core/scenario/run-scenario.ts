/**
 * Running a scenario: its steps are done in one go by a player (any host of a session), then every expectation is held
 * against what was seen at its place. An error or a refusal that no expectation names is a failure too (4-files).
 */
import type { Form } from '../form/definition';
import type { Answer, Broken, Opening, Step } from '../session/step';
import { beginningOf, isExpect, type Beginning } from './beginning';
import { caseTitle, expectationOfRow } from './cases';
import type { Expectation, Open, Scenario, ScenarioStep } from './definition';
import { meet, unnamed, type Unmet } from './expecting';
import { brokenAsUnmet } from './broken';
import { gridMisses, sessionOf } from './grid';
import { withInputs } from './inputs';
import { NoSuchOpening, openingOf, type Cast } from './opening';
import { tableOptions, type OptionSource } from './options';
import { nothingHeard, NOTHING_SEEN, seenAfter, type Heard, type Seen } from './seen';

/** Opens a form and does steps: the answer of the opening, then one for each step. */
export type Player = (opening: Opening, steps: readonly Step[]) => Promise<Answer[]>;

export interface Miss extends Unmet {
  /** The entry of the scenario's `steps`, from 0; their number for what shows after the last. */
  entry: number;
  /** Steps done by then, as the tape counts them: 0 is the opening. */
  after: number;
  /** The row of the table, or the combination of the grid, from 0. */
  at: number | null;
  /** Why, in a sentence; where whoever ran it has asked. */
  why?: string;
}

export interface ScenarioResult {
  title: string;
  passed: boolean;
  misses: Miss[];
  /** Steps done, without the expectations. */
  steps: number;
  /** How each row of the table came out. */
  cases?: { title: string; passed: boolean }[];
}

/** What scenarios run against. */
export interface ScenarioGround {
  form: Form;
  source: OptionSource;
  cast: Cast;
}

/** Plays a scenario and compares the result with what it expects. One that cannot be opened has missed that. */
export async function runScenario(
  scenario: Scenario,
  form: Form,
  source: OptionSource,
  cast: Cast,
  play: Player,
): Promise<ScenarioResult> {
  const ground = { form, source, cast };
  const result: ScenarioResult = { title: scenario.title, passed: false, misses: [], steps: 0 };
  try {
    const beginning = beginningOf(scenario, cast.scenarios ?? []);
    const { cases, grid } = scenario;
    // A table runs the steps with each of its rows, and a grid has them before each combination.
    if (cases === undefined || cases.rows.length === 0)
      await runOnce(scenario, beginning, ground, play, null, result);
    else {
      result.cases = [];
      for (const row of cases.rows.keys()) {
        const before = result.misses.length;
        await runOnce(scenario, beginning, ground, play, row, result);
        const passed = result.misses.length === before;
        result.cases.push({ title: caseTitle(cases, row), passed });
      }
    }
    if (grid !== undefined) {
      const { misses, steps } = await gridMisses(scenario, ground, play);
      result.steps += steps;
      result.misses.push(...misses.map((miss) => ({ ...miss, entry: scenario.steps.length })));
    }
  } catch (caught) {
    if (!(caught instanceof NoSuchOpening)) throw caught;
    const says = `cannot be opened: ${caught.message}`;
    result.misses.push({ entry: 0, after: 0, at: null, part: '@open', aspect: null, says });
  }
  return { ...result, passed: result.misses.length === 0 };
}

/** What a scenario comes to when it is played: its opening, all of its steps, and the expectations between. */
export interface Script {
  open: Open;
  opening: Opening;
  steps: Step[];
  /** With the steps done by then and the entry that it is of. */
  expectations: { after: number; entry: number; expect: Expectation }[];
}

/** What is done to get to where a scenario, a row of its table or a combination of its grid ends. Throws NoSuchOpening. */
export function sessionAt(
  scenario: Scenario,
  at: number | null,
  ground: Pick<ScenarioGround, 'form' | 'cast'>,
): { open: Open; steps: Step[] } {
  const { cases, grid } = scenario;
  if (cases === undefined && grid !== undefined && at !== null)
    return sessionOf(scenario, grid.axes, grid.accepted.rows[at]![0], ground);
  const beginning = beginningOf(scenario, ground.cast.scenarios ?? []);
  const { open, steps } = scriptOf(scenario, beginning, ground, at);
  return { open, steps };
}

/** The script of a scenario, or of one row of its table. Throws NoSuchOpening. */
export function scriptOf(
  scenario: Scenario,
  { open, steps: before }: Beginning,
  { form, cast }: Pick<ScenarioGround, 'form' | 'cast'>,
  row: number | null,
): Script {
  const { cases } = scenario;
  const values = cases?.rows[row ?? -1];
  const varied =
    values === undefined
      ? { open, steps: [] }
      : withInputs(open, cases!.inputs, values.inputs, 'left alone');
  const entries: ScenarioStep[] = [
    ...scenario.steps,
    ...varied.steps,
    ...(values === undefined ? [] : (cases!.steps ?? [])),
    ...(values === undefined ? [] : [{ expect: expectationOfRow(cases!, values.expected, form) }]),
  ];
  const steps: Step[] = [...before];
  const expectations: Script['expectations'] = [];
  entries.forEach((one, entry) => {
    if (isExpect(one))
      expectations.push({
        after: steps.length,
        entry: Math.min(entry, scenario.steps.length),
        expect: one.expect,
      });
    else steps.push(one);
  });
  return { open: varied.open, opening: openingOf(varied.open, form, cast), steps, expectations };
}

async function runOnce(
  scenario: Scenario,
  beginning: Beginning,
  ground: ScenarioGround,
  play: Player,
  row: number | null,
  result: ScenarioResult,
): Promise<void> {
  const script = scriptOf(scenario, beginning, ground, row);
  const answers = await play(script.opening, script.steps);
  result.steps += script.steps.length;
  result.misses.push(
    ...missesOf(script, answers, ground, scenario.steps.length).map((miss) => ({
      ...miss,
      at: row,
    })),
  );
}

/** All expectations that are not met, in order. */
export function missesOf(
  { steps, expectations }: Script,
  answers: readonly Answer[],
  { form, source }: ScenarioGround,
  last: number,
): Omit<Miss, 'at'>[] {
  const misses: Omit<Miss, 'at'>[] = [];
  const baseOptions = tableOptions(form, source);
  let heard = nothingHeard();
  let done = 0;
  let seen = hear(heard, NOTHING_SEEN, answers[0]!, 0);
  let since = { seen, step: 0 };
  /** An invariant that stays broken is missed once, where it began. */
  let broken: readonly Broken[] = [];
  const judge = (entry: number) => {
    const now = answers[done]!.broken;
    for (const one of now)
      if (!broken.some((before) => isSame(before, one)))
        misses.push({ ...brokenAsUnmet(one), entry, after: done });
    broken = now;
  };
  const doUntil = (after: number, entry: number) => {
    while (done < after) {
      seen = hear(heard, seen, answers[++done]!, done);
      judge(entry);
    }
  };
  judge(0);
  let opening = { messages: heard.messages.length, toParent: heard.toParent.length };
  for (const { after, entry, expect } of expectations) {
    doUntil(after, entry);
    const between = { seen: since.seen, steps: steps.slice(since.step, done), opening };
    const unmet = meet(expect, { form, seen, heard, since: between, baseOptions });
    misses.push(...unmet.map((one) => ({ ...one, entry, after: done })));
    heard = nothingHeard();
    opening = { messages: 0, toParent: 0 };
    if (expect['@nothingElse'] === true) since = { seen, step: done };
  }
  doUntil(steps.length, last);
  misses.push(...unnamed(heard, {}).map((one) => ({ ...one, entry: last, after: done })));
  return misses;
}

/** Whether both are of the same invariant, for the same row. */
function isSame(one: Broken, other: Broken): boolean {
  return (
    one.behaviour === other.behaviour &&
    one.line === other.line &&
    one.title === other.title &&
    one.row === other.row
  );
}

function hear(heard: Heard, seen: Seen, answer: Answer, step: number): Seen {
  heard.messages.push(...answer.messages);
  heard.log.push(...answer.log);
  heard.errors.push(...answer.errors);
  heard.toParent.push(...answer.toParent);
  if (answer.refused !== null) heard.refused.push({ step, why: answer.refused });
  return seenAfter(seen, answer);
}
