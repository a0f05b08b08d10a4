/**
 * Why something is not so: each line that could have said it, and what kept it from doing so in its last run. That a
 * condition is what kept it is tried and not guessed: the run is done again with the condition the other way round,
 * until the line is reached or something else stands in its way.
 */
import type { Value } from '../form/value';
import type { Failure } from '../wire/failures';
import type { Place } from '../session/detail';
import type { Effect, Run, Tape } from '../tape/tape';
import type { Writer } from '../language/writers';
import {
  conditionMet,
  effectBefore,
  explained,
  type Cause,
  type ConditionMet,
  type Decision,
  type Question,
} from './decision';
import { inDetail, type Ground } from './ground';
import { holds } from './comparison';
import type { Instance, Instances } from './instances';
import { nearMisses, type NearMiss } from './near-miss';
import { sliceOfData } from './slice';

/** A condition that kept a line from being reached. */
export interface Kept extends ConditionMet {
  /** How it would have had to come out; null for a `switch`. */
  wanted: boolean | null;
  near: NearMiss[];
  causes: Cause[];
}

export type Outcome =
  /** Nothing that it runs on has happened since the record was opened. */
  | { is: 'never ran' }
  /** Conditions kept it, in the order in which they stood in its way. */
  | { is: 'kept'; by: Kept[] }
  /** It was reached and said this, and it shows. */
  | { is: 'said'; value: Value }
  /** It said this, and something later was said over it. */
  | {
      is: 'overruled';
      value: Value;
      by: { entry: number; behaviour: string; title: string } | null;
    }
  /** Its run failed before it came there. */
  | { is: 'failed'; failure: Failure }
  /** Its run waits. */
  | { is: 'waits' }
  /** It was not reached, and no condition that can be named is why. */
  | { is: 'not reached' };

export interface WhyNot {
  writer: Writer;
  /** The run that was looked at, by its entry; null where there was none. */
  run: number | null;
  outcome: Outcome;
}

/** So many conditions are turned round, one behind the other, for one line. */
const MOST_TURNED = 5;

/** What became of the lines that did not decide. */
export function otherLines(
  found: readonly WhyNot[],
  { line, run }: Pick<Decision, 'line' | 'run'>,
): WhyNot[] {
  return found.filter(
    ({ writer, outcome }) =>
      outcome.is !== 'said' || writer.line !== line || writer.script !== run?.behaviour,
  );
}

/** Every line that could say something of the aspect, and what became of it. */
export async function whyNot(
  ground: Ground,
  writers: readonly Writer[],
  question: Question,
): Promise<WhyNot[]> {
  const part = question.part.replace(/#\d+/, '');
  const found: WhyNot[] = [];
  for (const writer of writers)
    if (writer.part === part && writer.aspect === question.aspect)
      found.push(await ofWriter(ground, writer, question));
  return found;
}

async function ofWriter(ground: Ground, writer: Writer, question: Question): Promise<WhyNot> {
  const { tape } = ground;
  const run = lastRun(tape, writer, question);
  if (run === null) return { writer, run: null, outcome: { is: 'never ran' } };
  const about = { writer, run: run.n };
  const { instances } = await inDetail(ground, run);
  const said = instances.all
    .flatMap((one) => one.said)
    .findLast(
      (one) =>
        one.part === question.part && one.aspect === question.aspect && one.line === writer.line,
    );
  if (said !== undefined) return { ...about, outcome: became(tape, run, said.value, question) };
  const kept = await keptBy(ground, run, writer, question);
  if (kept.length > 0) return { ...about, outcome: { is: 'kept', by: kept } };
  if (run.outcome === 'failed') {
    const error = tape.childrenOf(run).find(({ type }) => type === 'error');
    if (error?.type === 'error')
      return { ...about, outcome: { is: 'failed', failure: error.failure } };
  }
  return { ...about, outcome: { is: run.outcome === 'open' ? 'waits' : 'not reached' } };
}

/** The last run of the handler or rule before the moment; of a cell, one of its own row. */
function lastRun(tape: Tape, writer: Writer, { part, before }: Question): Run | null {
  const row = /^(\w+#\d+)/.exec(part)?.[1];
  return (
    (tape.entries.findLast((entry) => {
      if (
        entry.type !== 'run' ||
        entry.n <= tape.since ||
        (before !== null && entry.n >= before) ||
        entry.sort !== writer.sort ||
        entry.behaviour !== writer.script ||
        entry.line !== writer.tiedAt
      )
        return false;
      if (row === undefined) return true;
      const touches = (name: string | null) => name === row || name?.startsWith(`${row}.`) === true;
      const cause = tape.causeOf(entry);
      return (
        (entry as Run).reads.some((read) => touches(read.part)) ||
        (cause?.type === 'event' && touches(cause.part)) ||
        tape.childrenOf(entry).some((child) => child.type === 'effect' && touches(child.part))
      );
    }) as Run | undefined) ?? null
  );
}

/** What became of something that was said. */
function became(tape: Tape, run: Run, value: Value, question: Question): Outcome {
  const shows = effectBefore(tape, question);
  if (shows === null || tape.causeOf(shows) === run || shows.n < run.n) {
    const covered = tape
      .childrenOf(run)
      .find(
        (entry): entry is Effect =>
          entry.type === 'effect' &&
          entry.part === question.part &&
          entry.aspect === question.aspect &&
          'covered' in entry,
      );
    return covered === undefined
      ? { is: 'said', value }
      : { is: 'overruled', value, by: winnerOver(tape, question) };
  }
  const by = tape.causeOf(shows);
  return {
    is: 'overruled',
    value,
    by:
      by?.type === 'run'
        ? { entry: shows.n, behaviour: (by as Run).behaviour, title: (by as Run).title }
        : { entry: shows.n, behaviour: '', title: '' },
  };
}

/** The rule whose word shows over a covered one. */
function winnerOver(
  tape: Tape,
  { part, aspect, before }: Question,
): { entry: number; behaviour: string; title: string } | null {
  const shows = effectBefore(tape, { part, aspect, before });
  const run = shows === null ? null : tape.runOf(shows);
  return shows === null || run === null
    ? null
    : { entry: shows.n, behaviour: run.behaviour, title: run.title };
}

/** The conditions that kept a line from being reached, found by turning each round and looking further. */
async function keptBy(
  ground: Ground,
  run: Run,
  writer: Writer,
  question: Question,
): Promise<Kept[]> {
  const kept: Kept[] = [];
  const turned: Place[] = [];
  while (kept.length < MOST_TURNED) {
    const { instances } = await inDetail(ground, run, turned);
    const reached = instances.all.some(({ said }) =>
      said.some(
        (one) =>
          one.part === question.part && one.aspect === question.aspect && one.line === writer.line,
      ),
    );
    if (reached && turned.length > 0) return kept;
    const blocking = blockerOf(instances, writer, turned);
    if (blocking === null) return kept;
    const { instance, wanted } = blocking;
    const met = conditionMet(instances, instance);
    const slice = sliceOfData(instances, instance);
    kept.push({
      ...met,
      wanted,
      near: met.comparisons
        .filter(({ came, op }) => came === (op === '!==' || op === '!='))
        .flatMap((comparison) =>
          nearMisses(
            comparison,
            ground.form,
            slice.reads.map(({ part }) => part),
          ),
        ),
      causes: explained(ground, instances, slice, run, question.before ?? Infinity).causes,
    });
    if (wanted === null) return kept;
    turned.push(instance.place);
  }
  return kept;
}

/** The first condition in the way of a line that came out the other way than it would have had to. */
function blockerOf(
  instances: Instances,
  { script, conditions }: Writer,
  turned: readonly Place[],
): { instance: Instance; wanted: boolean | null } | null {
  for (const { start, end, holds: wanted } of conditions) {
    const instance = instances.all.findLast(
      ({ place, site }) =>
        place.script === script &&
        site.start === start &&
        site.end === end &&
        (site.kind === 'condition' || site.kind === 'switch'),
    );
    if (instance === undefined || turned.some(({ site }) => site === instance.place.site)) continue;
    if (instance.site.kind === 'switch') return { instance, wanted: null };
    const came = instance.value;
    if (came === undefined) continue;
    if (holds(came) !== wanted) return { instance, wanted };
  }
  return null;
}
