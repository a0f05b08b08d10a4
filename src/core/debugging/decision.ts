/**
 * Who decided what an aspect of a part is at a moment, on which line, under which conditions and from which values.
 * What a script said is had by running it again in detail and following what it depends on (`slice.ts`); everything it
 * depends on can be asked about in turn, down to the step of a person, the opening or the definition.
 */
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf, sectionsOf } from '../form/fields';
import type { Value, Values } from '../form/value';
import { basesOf, ROW_BASES } from '../session/parts';
import type { SaidName } from '../session/aspects';
import type { Entry } from '../session/entries';
import type { PartState } from '../session/step';
import type { Effect, Run, Tape } from '../tape/tape';
import type { Line } from '../wire/line';
import type { Comparison } from './comparison';
import { inDetail, stretchesOf, type Ground } from './ground';
import type { Instance, Instances, Read } from './instances';
import { nearMisses, type NearMiss } from './near-miss';
import { sliceOf, type Slice } from './slice';

/** An aspect of a part, before an entry of the tape; at its end when that is null. */
export interface Question {
  part: string;
  aspect: string;
  before: number | null;
}

/** A condition that was looked at on the way. */
export interface ConditionMet {
  script: string;
  site: number;
  line: number;
  text: string;
  /** What it came to; of a `switch`, what was looked at. */
  came: Value;
  comparisons: Comparison[];
}

/** Something a decision depends on. */
export type Cause =
  /** An aspect that was read; `entry` is the effect that made it so, null where the definition or the record did. */
  | { is: 'read'; part: string; aspect: string; value: Value; entry: number | null }
  /** The event that a handler ran on. */
  | { is: 'event'; event: string; part: string | null; value: Value; entry: number }
  | { is: 'answer'; name: string; value: Value; fails: string | null; entry: number }
  /** How the form was opened: `person`, `launch`, `isNew`, `record`, or a value of the parent's. */
  | { is: 'opening'; what: string; value: Value }
  | { is: 'clock' | 'random' }
  /** A variable of a script that outlives runs. */
  | { is: 'variable'; script: string; name: string };

export type Decided =
  /** A script said it. */
  | 'said'
  /** A rule no longer says otherwise, so what stands below shows: another rule's word, a handler's or the definition. */
  | 'withdrawn'
  /** A person entered it. */
  | 'entered'
  /** The form itself corrected it: no longer offered, or off screen. */
  | 'corrected'
  /** It came with its row, when that was added. */
  | 'row'
  /** It came with the record. */
  | 'record'
  /** Nobody said anything: the definition holds. */
  | 'definition';

export interface Decision {
  part: string;
  aspect: string;
  value: Value;
  decided: Decided;
  /** The effect on the tape; null where there was none. */
  entry: number | null;
  /** The run that decided it. */
  run: { entry: number; sort: Run['sort']; behaviour: string; title: string } | null;
  line: Line | null;
  /** The statement on that line, and the comparisons in it. */
  statement: string | null;
  comparisons: Comparison[];
  /** Conditions that led there. */
  conditions: ConditionMet[];
  /** What is often wrong with comparisons that came out as these did. */
  near: NearMiss[];
  causes: Cause[];
}

/** What can be asked about a part, in this order. */
export const ASKED_ABOUT = Object.keys({
  shown: 0,
  value: 0,
  required: 0,
  locked: 0,
  options: 0,
  hint: 0,
  warning: 0,
  problem: 0,
  label: 0,
  stage: 0,
} satisfies Record<Exclude<SaidName, 'message' | 'replaced'>, 0>) as Exclude<
  SaidName,
  'message' | 'replaced'
>[];

/** The aspect asked about first: of a hidden part why it is, else what a script decided last, else whether it is shown, or its value. */
export function usualAspect(tape: Tape, part: string, state: PartState | undefined): SaidName {
  if (state?.shown === false) return 'shown';
  const last = tape
    .lifeOf(part)
    .findLast(({ by, aspect }) => by === 'script' && ASKED_ABOUT.includes(aspect as 'shown'));
  if (last !== undefined) return last.aspect;
  return state?.value === undefined ? 'shown' : 'value';
}

/** The last effect on an aspect before a moment that shows; null when there was none since the record was opened. */
export function effectBefore(tape: Tape, { part, aspect, before }: Question): Effect | null {
  return (
    tape
      .lifeOf(part)
      .findLast(
        (effect) =>
          effect.aspect === aspect &&
          effect.covered !== true &&
          (before === null || effect.n < before),
      ) ?? null
  );
}

/** Answers why an aspect is what it is. */
export async function decide(ground: Ground, question: Question): Promise<Decision> {
  const { tape } = ground;
  const { part, aspect } = question;
  const effect = effectBefore(tape, question);
  if (effect === null) return withItsRow(ground, question) ?? undecided(ground, question);
  const base = { part, aspect, value: effect.to, entry: effect.n };
  const cause = tape.causeOf(effect);
  if (cause?.type !== 'run') return byNoScript(tape, effect, cause, base);
  const run = cause as Run;
  // The word of another rule shows again: that rule decides.
  const { behaviour, title } = effect.again ?? run;
  const since = { behaviour, title, before: question.before };
  const line = effect.again?.line ?? effect.line;
  const found =
    effect.again === undefined && run.sort === 'handler'
      ? await saidIn(ground, run, question, line)
      : effect.withdrawn === true && effect.again === undefined
        ? null
        : await saidByRule(ground, since, question);
  const saying = found?.run ?? run;
  const made =
    found === null
      ? null
      : explained(
          ground,
          found.instances,
          sliceOf(found.instances, found.instance),
          saying,
          saying.sort === 'rule' ? saying.n : effect.n,
        );
  return {
    ...base,
    // A rule that says the same as the definition falls silent without an effect.
    decided:
      (effect.withdrawn === true && effect.again === undefined) ||
      (found === null && saying.sort === 'rule')
        ? 'withdrawn'
        : 'said',
    run: { entry: saying.n, sort: saying.sort, behaviour: saying.behaviour, title: saying.title },
    line: found?.line ?? (run.sort === 'rule' ? null : line),
    statement: found?.instance.site.text ?? null,
    ...toldOf(ground, found, made?.conditions ?? []),
    causes: made?.causes ?? runCauses(tape, saying),
  };
}

/** The comparisons of the statement that said it, the conditions besides, and what is nearly right of both. */
function toldOf(
  { form }: Ground,
  found: FoundSaying | null,
  conditions: readonly ConditionMet[],
): Pick<Decision, 'comparisons' | 'conditions' | 'near'> {
  const { comparisons } =
    found === null ? { comparisons: [] } : conditionMet(found.instances, found.instance);
  const there = new Set(comparisons.map((one) => JSON.stringify(one)));
  const besides = conditions.filter(
    (condition) =>
      condition.comparisons.length === 0 ||
      condition.comparisons.some((one) => !there.has(JSON.stringify(one))),
  );
  const parts =
    found === null ? [] : sliceOf(found.instances, found.instance).reads.map(({ part }) => part);
  const near = [...comparisons, ...besides.flatMap((one) => one.comparisons)]
    .filter(({ came, op }) => came === (op === '!==' || op === '!='))
    .flatMap((comparison) => nearMisses(comparison, form, parts))
    // That a side is empty is seen as it is.
    .filter(({ is }) => is !== 'empty');
  const told = new Map(near.map((one) => [JSON.stringify(one), one]));
  return { comparisons, conditions: besides, near: [...told.values()] };
}

/** How a cause is asked about in turn; null for what has no cause of its own. */
export function questionOf(cause: Cause, decision: Pick<Decision, 'entry'>): Question | null {
  if (
    cause.is === 'event' &&
    cause.part !== null &&
    (cause.event === 'change' || cause.event === 'input')
  )
    return { part: cause.part, aspect: 'value', before: cause.entry };
  if (cause.is !== 'read') return null;
  const before = cause.entry === null ? decision.entry : cause.entry + 1;
  return { part: cause.part, aspect: cause.aspect, before };
}

interface FoundSaying {
  run: Run;
  instances: Instances;
  instance: Instance;
  line: Line;
}

/** Where a run said an aspect last; on the line that is known, where one is. */
async function saidIn(
  ground: Ground,
  run: Run,
  { part, aspect }: Question,
  line: Line | null,
): Promise<FoundSaying | null> {
  const { instances } = await inDetail(ground, run);
  for (const instance of instances.all.toReversed()) {
    const said = instance.said.findLast(
      (one) =>
        one.part === part &&
        one.aspect === aspect &&
        !one.withdrawn &&
        (line === null || one.line === line),
    );
    if (said !== undefined) return { run, instances, instance, line: said.line };
  }
  return null;
}

/** So many runs of a rule for rows are looked through for the one of a certain row. */
const MOST_RUNS = 50;

/**
 * Where a rule says an aspect now: in its last run, since each says everything anew, be it the same as before. One for
 * rows runs once for each of them.
 */
async function saidByRule(
  ground: Ground,
  { behaviour, title, before }: { behaviour: string; title: string; before: number | null },
  question: Question,
): Promise<FoundSaying | null> {
  const runs = ground.tape.entries
    .filter(
      (entry): entry is Run =>
        entry.type === 'run' &&
        entry.n > ground.tape.since &&
        (before === null || entry.n < before) &&
        entry.outcome === 'ended' &&
        entry.behaviour === behaviour &&
        entry.title === title,
    )
    .toReversed()
    .slice(0, question.part.includes('#') ? MOST_RUNS : 1);
  for (const run of runs) {
    const found = await saidIn(ground, run, question, null);
    if (found !== null) return found;
  }
  return null;
}

/** A cell that holds what its row brought: from a person, a script, or the record. */
function withItsRow({ tape }: Ground, { part, aspect, before }: Question): Decision | null {
  const [, rows, id, cell] = /^(\w+)#(\d+)\.(\w+)$/.exec(part) ?? [];
  if (rows === undefined || aspect !== 'value') return null;
  const none = { comparisons: [], conditions: [], near: [], causes: [], statement: null };
  const base = { part, aspect, entry: null, run: null, line: null, ...none };
  const added = tape.entries.findLast(
    (entry) =>
      entry.type === 'rows' &&
      entry.part === rows &&
      entry.row === id &&
      entry.did === 'added' &&
      (before === null || entry.n < before),
  );
  if (added?.type !== 'rows') {
    const opened = tape.entries.findLast((entry) => entry.type === 'opened');
    const brought = opened?.type === 'opened' ? opened.values[rows] : undefined;
    // Rows of the record are numbered in their order.
    const row = Array.isArray(brought) ? brought[Number(id) - 1] : undefined;
    return row === undefined
      ? null
      : { ...base, value: (row as unknown as Values)[cell!] ?? null, decided: 'record' };
  }
  const cause = tape.causeOf(added);
  if (cause?.type === 'run') {
    const { n, sort, behaviour, title } = cause as Run;
    const run = { entry: n, sort, behaviour, title };
    const value = readLast(tape, part, before);
    return { ...base, entry: added.n, value, run, line: added.line, decided: 'row' };
  }
  const given = cause?.type === 'step' && 'addRow' in cause.step ? cause.step.with : undefined;
  const among = tape
    .childrenOf(cause ?? added)
    .filter((entry) => entry.type === 'rows' && entry.part === rows && entry.did === 'added')
    .indexOf(added);
  const row = Array.isArray(given) ? given[among] : given;
  return { ...base, entry: added.n, value: row?.[cell!] ?? null, decided: 'row' };
}

/** What a cell was when it was read last; null where nothing has read it. */
function readLast(tape: Tape, part: string, before: number | null): Value {
  const reader = tape.entries.findLast(
    (entry) =>
      entry.type === 'run' &&
      (before === null || entry.n < before) &&
      (entry as Run).reads.some((read) => read.part === part && read.aspect === 'value'),
  ) as Run | undefined;
  return reader?.reads.findLast((read) => read.part === part)?.value ?? null;
}

function undecided({ tape, form }: Ground, { part, aspect }: Question): Decision {
  const opened = tape.entries.findLast((entry) => entry.type === 'opened');
  const values = opened?.type === 'opened' ? opened.values : {};
  const brought = aspect === 'value' && opened?.type === 'opened' && opened.record !== null;
  return {
    part,
    aspect,
    value: aspect === 'value' ? (values[part] ?? null) : definedAs(form, part, aspect),
    decided: brought && Object.hasOwn(values, part) ? 'record' : 'definition',
    entry: null,
    run: null,
    line: null,
    statement: null,
    comparisons: [],
    conditions: [],
    near: [],
    causes: [],
  };
}

/** What the definition says of an aspect. `part` is as on the tape, such as `cargo#1.weight`. */
function definedAs(form: Form, part: string, aspect: string): Value {
  const [name, cell] = part.replace(/#\d+/, '').split('.');
  const field = fieldsOf(form).find((one) => one.name === name);
  const bases =
    cell !== undefined && field !== undefined
      ? basesOf(
          'field',
          cellsOf(field).find((one) => one.name === cell)!,
        )
      : part.includes('#')
        ? ROW_BASES
        : basesIn(form, name!, field);
  return (bases as Readonly<Record<string, Value>> | null)?.[aspect] ?? null;
}

function basesIn(form: Form, name: string, field: Field | undefined): object | null {
  const named = <T extends { name: string }>(all: readonly T[] | undefined) =>
    all?.find((one) => one.name === name);
  if (field !== undefined) return basesOf('field', field);
  const [page, section] = [named(form.pages), named(sectionsOf(form))];
  const [button, track] = [named(form.buttons), named(form.tracks)];
  if (page !== undefined) return basesOf('page', page);
  if (section !== undefined) return basesOf('section', section);
  if (button !== undefined) return basesOf('button', button);
  return track === undefined ? null : basesOf('track', track);
}

function byNoScript(
  tape: Tape,
  effect: Effect,
  cause: Entry | null,
  base: Pick<Decision, 'part' | 'aspect' | 'value' | 'entry'>,
): Decision {
  const none = {
    ...base,
    run: null,
    line: null,
    statement: null,
    comparisons: [],
    conditions: [],
    near: [],
  };
  if (effect.by !== 'form') return { ...none, decided: 'entered', causes: [] };
  // What made the form correct it: options that changed, or something that was hidden, just before.
  const causes: Cause[] = tape.entries
    .filter(
      (entry): entry is Effect =>
        entry.type === 'effect' &&
        entry.n < effect.n &&
        entry.n > (cause?.n ?? tape.since) &&
        !('struck' in entry) &&
        ((entry.part === effect.part && entry.aspect === 'options') || entry.aspect === 'shown'),
    )
    .map(({ part, aspect, to, n }) => ({ is: 'read', part, aspect, value: to, entry: n }));
  return { ...none, decided: 'corrected', causes: causes.slice(-3) };
}

/** A slice in terms of the form: the conditions with their comparisons, and what it all depends on. */
export function explained(
  { tape }: Ground,
  instances: Instances,
  slice: Slice,
  run: Run,
  before: number,
): { conditions: ConditionMet[]; causes: Cause[] } {
  const causes: Cause[] = slice.reads.map((read) => causeOfRead(tape, read, before));
  for (const { what, value } of slice.asked)
    causes.push(what === 'random' ? { is: 'random' } : { is: 'opening', what, value });
  for (const mark of slice.marks)
    if (!causes.some(({ is }) => is === mark)) causes.push({ is: mark });
  for (const { script, name } of slice.variables) causes.push({ is: 'variable', script, name });
  causes.push(...runCauses(tape, run, slice));
  // A part of a condition is told with the whole.
  const whole = slice.conditions.filter(
    ({ within }) => !slice.conditions.some(({ index }) => index === within),
  );
  return { conditions: whole.map((one) => conditionMet(instances, one)), causes };
}

function causeOfRead(tape: Tape, { part, aspect, value }: Read, before: number): Cause {
  const entry = effectBefore(tape, { part, aspect, before })?.n ?? null;
  return { is: 'read', part, aspect, value, entry };
}

/** That a handler ran at all is due to its event, and what it waited for. */
export function runCauses(
  tape: Tape,
  run: Run,
  slice: Pick<Slice, 'answers'> | null = null,
): Cause[] {
  if (run.sort === 'rule') return [];
  const [first, ...later] = stretchesOf(tape, run);
  const event = tape.causeOf(first!);
  const causes: Cause[] =
    event?.type === 'event'
      ? [{ is: 'event', event: event.event, part: event.part, value: event.value, entry: event.n }]
      : [];
  for (const stretch of later) {
    const answered = tape.causeOf(stretch);
    if (
      answered?.type !== 'answered' ||
      (slice !== null && slice.answers.length === 0 && answered.name !== 'after')
    )
      continue;
    causes.push({
      is: 'answer',
      name: answered.name,
      value: answered.with,
      fails: answered.fails,
      entry: answered.n,
    });
  }
  return causes;
}

/** Sides of comparisons in a condition and in those within it. */
function operandsOf(instances: Instances, instance: Instance): Map<number, Value> {
  const all = new Map(instance.operands);
  for (const index of instance.conditions)
    for (const [site, value] of operandsOf(instances, instances.all[index]!)) all.set(site, value);
  return all;
}

export function conditionMet(instances: Instances, instance: Instance): ConditionMet {
  const { place, site, value = null } = instance;
  const sites = instances.sites.get(place.script)!;
  const operands = operandsOf(instances, instance);
  const valueOf = (number: number) => operands.get(number);
  const comparisons = sites.flatMap((comparison, number): Comparison[] => {
    const came = valueOf(number);
    if (
      comparison.kind !== 'comparison' ||
      came === undefined ||
      comparison.start < site.start ||
      comparison.end > site.end
    )
      return [];
    const [left, right] = sites.flatMap((operand, at) =>
      operand.kind === 'operand' && operand.under?.site === number
        ? [{ text: operand.text, value: valueOf(at) ?? null }]
        : [],
    );
    return left === undefined || right === undefined
      ? []
      : [{ text: comparison.text, op: comparison.op!, left, right, came: came === true }];
  });
  return {
    script: place.script,
    site: place.site,
    line: site.line,
    text: site.text,
    came: value,
    comparisons,
  };
}
