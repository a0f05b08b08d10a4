/**
 * Running a scenario: its steps are done in one go by a player (any host of a session), then every expectation is held
 * against what was seen at its place. An error or a refusal that no expectation names is a failure too (4-files).
 */
import { lineInWords } from '../wire/line';
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { equal, inWords, type Value, type Values } from '../form/value';
import { STEP_KINDS, type Answer, type Opening, type PartState, type Step } from '../session/step';
import type { Expectation, PartExpectation, Scenario, ScenarioStep } from './definition';
import { NoSuchOpening, openingOf, type Cast } from './opening';
import { nothingHeard, NOTHING_SEEN, partSeen, seenAfter, type Heard, type Seen } from './snapshot';
import { tableOptions, type OptionSource } from './options';

/** Opens a form and does steps: the answer of the opening, then one for each step. */
export type Player = (opening: Opening, steps: readonly Step[]) => Promise<Answer[]>;

export interface Miss {
  /** The entry of `steps` at which it showed, from 0; that of the expectation, or the step that went wrong. */
  step: number;
  part: string;
  aspect: string | null;
  says: string;
}

export interface ScenarioResult {
  title: string;
  passed: boolean;
  misses: Miss[];
  /** Steps done, without the expectations. */
  steps: number;
}

/** Plays a scenario and holds what came of it against what it expects. One that cannot be opened has missed that. */
export async function runScenario(
  scenario: Scenario,
  form: Form,
  source: OptionSource,
  cast: Cast,
  play: Player,
): Promise<ScenarioResult> {
  const steps = scenario.steps.filter((step) => !isExpect(step)) as Step[];
  const of = { title: scenario.title, steps: steps.length };
  let opening: Opening;
  try {
    opening = openingOf(scenario.open, form, cast);
  } catch (caught) {
    if (!(caught instanceof NoSuchOpening)) throw caught;
    const says = `cannot be opened: ${caught.message}`;
    return { ...of, passed: false, misses: [{ step: 0, part: '@open', aspect: null, says }] };
  }
  const answers = await play(opening, steps);
  const misses = compare(scenario, answers, form, tableOptions(form, source));
  return { ...of, passed: misses.length === 0, misses };
}

export function isExpect(step: ScenarioStep): step is { expect: Expectation } {
  return 'expect' in step;
}

/** All expectations that are not met, in order. */
function compare(
  scenario: Scenario,
  answers: readonly Answer[],
  form: Form,
  baseOptions: (field: string) => string[] | null,
): Miss[] {
  const misses: Miss[] = [];
  let heard = nothingHeard();
  let seen = hear(heard, NOTHING_SEEN, answers[0]!, -1);
  let next = 1;
  scenario.steps.forEach((step, index) => {
    if (!isExpect(step)) {
      seen = hear(heard, seen, answers[next++]!, index);
      return;
    }
    misses.push(...meet(step.expect, seen, heard, index, form, baseOptions));
    heard = nothingHeard();
  });
  misses.push(...unnamed(heard, {}, scenario.steps.length));
  return misses;
}

function hear(heard: Heard, seen: Seen, answer: Answer, step: number): Seen {
  heard.messages.push(...answer.messages);
  heard.log.push(...answer.log);
  heard.errors.push(...answer.errors);
  heard.toParent.push(...answer.toParent);
  if (answer.refused !== null) heard.refused.push({ step, why: answer.refused });
  return seenAfter(seen, answer);
}

function meet(
  expect: Expectation,
  seen: Seen,
  heard: Heard,
  step: number,
  form: Form,
  baseOptions: (field: string) => string[] | null,
): Miss[] {
  const misses: Miss[] = unnamed(heard, expect, step);
  const miss = (part: string, aspect: string | null, says: string) =>
    misses.push({ step, part, aspect, says });
  const demand = (part: string, aspect: string | null, got: Value, wanted: Value) => {
    if (!equal(got, wanted))
      miss(
        part,
        aspect,
        `${aspect === null ? part : `${part}.${aspect}`} is ${show(got)}, expected ${show(wanted)}`,
      );
  };
  for (const [name, wanted] of Object.entries(expect)) {
    if (name.startsWith('@') || wanted === undefined) continue;
    const part = partSeen(seen, form, name);
    if (part === undefined) {
      miss(name, null, `there is no part "${name}"`);
      continue;
    }
    for (const [aspect, value] of Object.entries(wanted as PartExpectation)) {
      if (aspect === 'cells') {
        const cells = part.sort === 'row' ? (part.value as Values) : {};
        for (const [cell, inCell] of Object.entries(value as Values))
          demand(`${name}.${cell}`, null, cells[cell] ?? null, inCell);
        continue;
      }
      if (aspect === 'count') {
        demand(name, aspect, seen.rows[name]?.order.length ?? 0, value as Value);
        continue;
      }
      demand(name, aspect, aspectOf(name, part, aspect, baseOptions), value as Value);
    }
  }
  if (expect['@page'] !== undefined) demand('@page', null, seen.page, expect['@page']);
  if (expect['@replaced'] !== undefined)
    demand('@replaced', null, seen.replaced?.text ?? null, expect['@replaced']);
  if (expect['@notice'] !== undefined)
    demand('@notice', null, said(seen.notice, expect['@notice']), expect['@notice']);
  const messages = expect['@messages'];
  if (messages !== undefined)
    demand(
      '@messages',
      null,
      heard.messages.map((m, i) => said(m, messages[i] ?? '')),
      messages,
    );
  if (expect['@log'] !== undefined)
    demand(
      '@log',
      null,
      heard.log.map((line) => line.values),
      expect['@log'],
    );
  if (expect['@parent'] !== undefined) demand('@parent', null, heard.toParent, expect['@parent']);
  const submit = expect['@submit'];
  if (submit !== undefined) {
    const outcome = seen.submit;
    if (outcome === null) miss('@submit', null, 'nothing has been submitted');
    else {
      if (submit.saved !== undefined) demand('@submit', 'saved', outcome.saved, submit.saved);
      if (submit.stoppedBy !== undefined)
        demand('@submit', 'stoppedBy', outcome.stoppedBy, submit.stoppedBy);
      if (submit.without !== undefined)
        demand('@submit', 'without', outcome.without, submit.without);
      for (const [field, value] of Object.entries(submit.values ?? {}))
        demand('@submit', `values.${field}`, outcome.values[field] ?? null, value);
    }
  }
  return misses;
}

/** Errors and refusals that an expectation does not name, or names and did not come. */
function unnamed(heard: Heard, expect: Expectation, step: number): Miss[] {
  const misses: Miss[] = [];
  const errors = expect['@errors'] ?? [];
  heard.errors.forEach((error, i) => {
    const wanted = errors[i];
    const where = `${error.behaviour}${error.line === null ? '' : `, ${lineInWords(error.line)}`}`;
    const fits =
      wanted !== undefined &&
      (wanted.behaviour === undefined || wanted.behaviour === error.behaviour) &&
      (wanted.line === undefined || wanted.line === error.line) &&
      (wanted.says === undefined || error.says.includes(wanted.says));
    if (!fits)
      misses.push({ step, part: '@errors', aspect: null, says: `${where}: ${error.says}` });
  });
  for (const wanted of errors.slice(heard.errors.length)) {
    misses.push({
      step,
      part: '@errors',
      aspect: null,
      says: `an error was expected and did not come: ${JSON.stringify(wanted)}`,
    });
  }
  const refused = expect['@refused'] ?? [];
  heard.refused.forEach((refusal, i) => {
    const wanted = refused[i];
    const fits =
      wanted !== undefined &&
      (wanted.step === undefined || wanted.step === refusal.step) &&
      (wanted.why === undefined || refusal.why.includes(wanted.why));
    if (!fits)
      misses.push({
        step: refusal.step,
        part: '@refused',
        aspect: null,
        says: `step ${refusal.step} was refused: ${refusal.why}`,
      });
  });
  for (const wanted of refused.slice(heard.refused.length)) {
    misses.push({
      step,
      part: '@refused',
      aspect: null,
      says: `a refusal was expected and did not come: ${JSON.stringify(wanted)}`,
    });
  }
  return misses;
}

function aspectOf(
  name: string,
  part: PartState,
  aspect: string,
  baseOptions: (field: string) => string[] | null,
): Value {
  if (aspect === 'options') return part.options?.map((option) => option.key) ?? baseOptions(name);
  return (part[aspect as keyof PartState] as Value | undefined) ?? null;
}

function said(message: { text: string; tone: string } | null, like: unknown): Value {
  if (message === null) return null;
  return typeof like === 'string' ? message.text : { text: message.text, tone: message.tone };
}

function show(value: Value): string {
  return typeof value === 'object' && value !== null ? JSON.stringify(value) : inWords(value);
}

/** The parts that a scenario names and the form does not have, as paths into it. */
export function unknownNames(
  scenario: Scenario,
  form: Form,
): { path: (string | number)[]; says: string }[] {
  const known = addressesOf(form);
  const unknown = (name: string) => !known.has(name.replace(/\[\d+\]/, '[]'));
  return scenario.steps.flatMap((step, i) => {
    const places: [string, string[]][] = isExpect(step)
      ? Object.keys(step.expect)
          .filter((name) => !name.startsWith('@'))
          .map((name) => [name, ['expect', name]])
      : namedBy(step).map(([key, name]) => [name, [key]]);
    return places
      .filter(([name]) => unknown(name))
      .map(([name, path]) => ({
        path: ['steps', i, ...path],
        says: `the form has no part "${name}"`,
      }));
  });
}

/** The parts of a form as scenarios spell them, with `[]` for the place of a row. */
export function addressesOf(form: Form): Set<string> {
  const known = new Set<string>();
  for (const page of form.pages) {
    known.add(page.name);
    for (const section of page.sections) known.add(section.name);
  }
  for (const field of fieldsOf(form)) {
    known.add(field.name);
    if (field.kind !== 'rows') continue;
    known.add(`${field.name}[]`);
    for (const cell of field.fields) known.add(`${field.name}[].${cell.name}`);
  }
  for (const button of form.buttons ?? []) known.add(button.name);
  for (const track of form.tracks ?? []) known.add(track.name);
  return known;
}

/** The keys of steps whose text names a part. */
export const NAMING_KEYS: ReadonlySet<string> = new Set(
  Object.entries(STEP_KINDS).flatMap(([kind, { namesPart }]) => (namesPart ? [kind] : [])),
);

/** The keys of a step that name a part, with the name. */
export function namedBy(step: Step): [string, string][] {
  return Object.entries(step).filter(
    (entry): entry is [string, string] => NAMING_KEYS.has(entry[0]) && typeof entry[1] === 'string',
  );
}
