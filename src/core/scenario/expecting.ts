/** Holding what was seen and heard of a session against what a scenario expects. */
import { lineInWords } from '../wire/line';
import type { Form } from '../form/definition';
import { equal, inWords, type Value, type Values } from '../form/value';
import type { PartState, Step, SubmitOutcome } from '../session/step';
import type { Expectation, PartExpectation } from './definition';
import { changesBetween, names, WHOLE } from './nothing-else';
import { partSeen, type Heard, type Seen } from './seen';

/** An expectation that was not met, or something that went wrong and that none names. */
export interface Unmet {
  part: string;
  aspect: string | null;
  says: string;
  /** Side by side, where a value was expected. */
  expected?: Value;
  actual?: Value;
}

/** A session at the place of an expectation. */
export interface Moment {
  form: Form;
  seen: Seen;
  /** Since the last expectation. */
  heard: Heard;
  /** As it was at the last expectation that says what else has not changed, and what was done since. */
  since: {
    seen: Seen;
    steps: readonly Step[];
    /** Messages and values for the parent that came with the opening: those were there before. */
    opening: { messages: number; toParent: number };
  };
  /** The options of a field while the definition's stand. */
  baseOptions: (field: string) => string[] | null;
}

/** All that is not met, in order: what went wrong unnamed first. */
export function meet(expect: Expectation, moment: Moment): Unmet[] {
  const { seen, heard } = moment;
  const misses = unnamed(heard, expect);
  const demand = (part: string, aspect: string | null, actual: Value, expected: Value) => {
    if (equal(actual, expected)) return;
    const what = aspect === null ? part : `${part}.${aspect}`;
    const says = `${what} is ${show(actual)}, expected ${show(expected)}`;
    misses.push({ part, aspect, says, expected, actual });
  };
  for (const [name, wanted] of Object.entries(expect))
    if (!name.startsWith('@') && wanted !== undefined)
      meetPart(name, wanted as PartExpectation, moment, demand, misses);
  if (expect['@page'] !== undefined) demand('@page', null, seen.page, expect['@page']);
  if (expect['@replaced'] !== undefined)
    demand('@replaced', null, WHOLE['@replaced'](seen), expect['@replaced']);
  if (expect['@notice'] !== undefined)
    demand('@notice', null, said(seen.notice, expect['@notice']), expect['@notice']);
  const messages = expect['@messages'];
  if (messages !== undefined) {
    const came = heard.messages.map((message, i) => said(message, messages[i] ?? ''));
    demand('@messages', null, came, messages);
  }
  if (expect['@log'] !== undefined) {
    const logged = heard.log.map((line) => line.values);
    demand('@log', null, logged, expect['@log']);
  }
  if (expect['@parent'] !== undefined) demand('@parent', null, heard.toParent, expect['@parent']);
  if (expect['@waiting'] !== undefined)
    demand('@waiting', null, callsWaitedFor(seen), expect['@waiting']);
  const submit = expect['@submit'];
  if (submit !== undefined && seen.submit === null)
    misses.push({ part: '@submit', aspect: null, says: 'nothing has been submitted' });
  else if (submit !== undefined) meetSubmit(submit, seen.submit!, demand);
  if (expect['@nothingElse'] === true) misses.push(...besides(expect, moment));
  return misses;
}

type Demand = (part: string, aspect: string | null, actual: Value, expected: Value) => void;

function meetPart(
  name: string,
  wanted: PartExpectation,
  { seen, form, baseOptions }: Moment,
  demand: Demand,
  misses: Unmet[],
): void {
  const part = partSeen(seen, form, name);
  if (part === undefined) {
    misses.push({ part: name, aspect: null, says: `there is no part "${name}"` });
    return;
  }
  for (const [aspect, value] of Object.entries(wanted)) {
    if (aspect === 'cells') {
      const cells = part.sort === 'row' ? (part.value as Values) : {};
      for (const [cell, inCell] of Object.entries(value as Values))
        demand(`${name}.${cell}`, null, cells[cell] ?? null, inCell);
    } else if (aspect === 'count')
      demand(name, aspect, seen.rows[name]?.order.length ?? 0, value as Value);
    else demand(name, aspect, aspectOf(name, part, aspect, baseOptions), value as Value);
  }
}

function meetSubmit(
  submit: NonNullable<Expectation['@submit']>,
  outcome: SubmitOutcome,
  demand: Demand,
): void {
  if (submit.saved !== undefined) demand('@submit', 'saved', outcome.saved, submit.saved);
  if (submit.stoppedBy !== undefined)
    demand('@submit', 'stoppedBy', outcome.stoppedBy, submit.stoppedBy);
  if (submit.without !== undefined) demand('@submit', 'without', outcome.without, submit.without);
  for (const [field, value] of Object.entries(submit.values ?? {}))
    demand('@submit', `values.${field}`, outcome.values[field] ?? null, value);
}

/** The functions of services that are waited for, the oldest call first. */
export function callsWaitedFor(seen: Seen): string[] {
  return seen.waiting
    .flatMap(({ calls }) => calls)
    .toSorted((a, b) => a.since - b.since)
    .map(({ name }) => name);
}

/** What changed, or was said, that the expectation does not name. */
function besides(expect: Expectation, { form, seen, heard, since }: Moment): Unmet[] {
  const unmet = (part: string, aspect: string | null, actual: Value, expected: Value): Unmet => ({
    part,
    aspect,
    says: `${aspect === null ? part : `${part}.${aspect}`} changed from ${show(expected)} to ${show(actual)}, and nothing else was to change`,
    expected,
    actual,
  });
  const misses = changesBetween(form, since.seen, seen, since.steps)
    .filter((change) => !names(expect, change))
    .map(({ part, aspect, before, now }) => unmet(part, aspect, now, before));
  for (const [name, of] of Object.entries(WHOLE)) {
    const turned = name === '@page' && since.steps.some((step) => 'turnTo' in step);
    const [before, now] = [of(since.seen), of(seen)];
    if (!(name in expect) && !turned && !equal(before, now))
      misses.push(unmet(name, null, now, before));
  }
  const said: [string, Value[]][] = [
    ['@messages', heard.messages.slice(since.opening.messages).map(({ text }) => text)],
    ['@parent', heard.toParent.slice(since.opening.toParent).map(({ set, to }) => ({ set, to }))],
  ];
  for (const [name, came] of said)
    if (!(name in expect) && came.length > 0)
      misses.push({
        part: name,
        aspect: null,
        says: `${name} has ${show(came)}, and nothing else was to change`,
        expected: [],
        actual: came,
      });
  return misses;
}

/** Errors and refusals that an expectation does not name, or names and did not come. */
export function unnamed(heard: Heard, expect: Expectation): Unmet[] {
  const misses: Unmet[] = [];
  const miss = (part: string, says: string) => misses.push({ part, aspect: null, says });
  const errors = expect['@errors'] ?? [];
  heard.errors.forEach((error, i) => {
    const wanted = errors[i];
    const where = `${error.behaviour}${error.line === null ? '' : `, ${lineInWords(error.line)}`}`;
    const fits =
      wanted !== undefined &&
      (wanted.behaviour === undefined || wanted.behaviour === error.behaviour) &&
      (wanted.line === undefined || wanted.line === error.line) &&
      (wanted.says === undefined || error.says.includes(wanted.says));
    if (!fits) miss('@errors', `${where}: ${error.says}`);
  });
  for (const wanted of errors.slice(heard.errors.length))
    miss('@errors', `an error was expected and did not come: ${JSON.stringify(wanted)}`);
  const refused = expect['@refused'] ?? [];
  heard.refused.forEach((refusal, i) => {
    const wanted = refused[i];
    const fits =
      wanted !== undefined &&
      (wanted.step === undefined || wanted.step === refusal.step) &&
      (wanted.why === undefined || refusal.why.includes(wanted.why));
    if (!fits) miss('@refused', `step ${refusal.step} was refused: ${refusal.why}`);
  });
  for (const wanted of refused.slice(heard.refused.length))
    miss('@refused', `a refusal was expected and did not come: ${JSON.stringify(wanted)}`);
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
