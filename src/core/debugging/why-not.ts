/**
 * Why something is not so: each line that could have said it, and what kept it from doing so in its last run. That a
 * condition is what kept it is tried and not guessed: the run is done again with the condition the other way round,
 * until the line is reached or something else stands in its way.
 */
import { equal, type Value } from '../form/value';
import type { Failure } from '../wire/failures';
import type { Line } from '../wire/line';
import type { SitePlace } from '../session/detail';
import type { Run, Tape } from '../tape/tape';
import type { Writer } from '../language/writers';
import { holds } from './comparison';
import type { Cause, ConditionMet, Decision } from './decision';
import { causesOf, conditionMet, nearIn, onTheWay } from './explained';
import { inDetail, type Ground } from './ground';
import type { Instance, Instances } from './instances';
import type { NearMiss } from './near-miss';
import { inRow, type Question } from './question';
import { sliceOfData } from './slice';
import { effectBefore, standingBefore } from './standing';
import { failureOf } from './taken-back';

/** A condition that kept a line from being reached. */
export interface Kept extends ConditionMet {
  /** How it needs to come out; null for a `switch`. */
  needs: boolean | null;
  /** Conditions and comparisons that it comes from: those of a helper that it calls. */
  from: ConditionMet[];
  near: NearMiss[];
  causes: Cause[];
  /** What it read and is otherwise by now. */
  now: { part: string; aspect: string; value: Value }[];
}

export type LineFate =
  /** Nothing that it runs on has happened since the record was opened. */
  | { is: 'never ran' }
  /** Conditions kept it, in the order in which they stood in its way. */
  | { is: 'kept'; by: Kept[] }
  /** It was reached and said this, and it shows. */
  | { is: 'said'; value: Value }
  /** It said this, and a later line of the same run said it anew. */
  | { is: 'overwritten'; value: Value; line: Line }
  /** It said this, and something later was said over it. */
  | {
      is: 'overruled';
      value: Value;
      by: { entry: number; behaviour: string; title: string } | null;
    }
  /** Its run failed, be it before it came there or after: then what it had said was taken back. */
  | { is: 'failed'; failure: Failure; said: { value: Value } | null }
  /** Its run waits; `restarted` is the entry of an earlier run that goes no further since it was started again. */
  | { is: 'waits'; restarted: number | null }
  /** It was not reached, and no condition that can be named is why. */
  | { is: 'not reached' };

export interface WhyNot {
  writer: Writer;
  /** The run that was looked at, by its entry; null where there was none. */
  run: number | null;
  outcome: LineFate;
}

/** So many conditions are turned round, one behind the other, for one line. */
const MOST_TURNED = 5;

/** What became of the lines that did not decide. */
export function otherLines(
  found: readonly WhyNot[],
  { line, run, decided }: Pick<Decision, 'line' | 'run' | 'decided'>,
): WhyNot[] {
  return found.filter(
    ({ writer, outcome }) =>
      decided === 'withdrawn' ||
      outcome.is === 'failed' ||
      writer.line !== line ||
      writer.script !== run?.behaviour,
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
  const all = instances.all
    .flatMap((one) => one.said)
    .filter(({ part, aspect }) => part === question.part && aspect === question.aspect)
    .sort((a, b) => a.detail - b.detail);
  const said = all.findLast(({ line }) => line === writer.line);
  const failure = tape.takenBackAfter(run)?.failure ?? failureOf(tape, run);
  if (tape.isStruck(run) && failure !== null)
    return {
      ...about,
      outcome: { is: 'failed', failure, said: said === undefined ? null : { value: said.value } },
    };
  const last = all.at(-1);
  if (said !== undefined && last !== undefined && last.line !== writer.line)
    return { ...about, outcome: { is: 'overwritten', value: said.value, line: last.line } };
  if (said !== undefined)
    return { ...about, outcome: became(tape, run, writer, said.value, question) };
  const kept = await keptBy(ground, run, writer, question);
  if (kept.length > 0) return { ...about, outcome: { is: 'kept', by: kept } };
  if (run.outcome === 'open')
    return { ...about, outcome: { is: 'waits', restarted: restartedBefore(tape, run) } };
  return { ...about, outcome: { is: 'not reached' } };
}

/** The last run of the handler or rule before the moment; of a cell, one of its own row. */
function lastRun(tape: Tape, writer: Writer, { part, before }: Question): Run | null {
  const within = inRow(part);
  const row = within === null ? null : `${within.rows}#${within.id}`;
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
      if (row === null) return true;
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
function became(tape: Tape, run: Run, writer: Writer, value: Value, question: Question): LineFate {
  const shows = effectBefore(tape, question);
  if (shows === null) return { is: 'said', value };
  const by = tape.runOf(shows);
  // The same line said it again in a later run, or says what shows already.
  const isSame = by !== null && by.behaviour === writer.script && shows.line === writer.line;
  const winner =
    shows.again === undefined
      ? { entry: shows.n, behaviour: by?.behaviour ?? '', title: by?.title ?? '' }
      : { entry: shows.n, behaviour: shows.again.behaviour, title: shows.again.title };
  if (tape.causeOf(shows) === run || shows.n < run.n) {
    const covered = tape
      .childrenOf(run)
      .some(
        (entry) =>
          entry.type === 'effect' &&
          entry.part === question.part &&
          entry.aspect === question.aspect &&
          'covered' in entry,
      );
    return (covered || !equal(shows.to, value)) && !isSame
      ? { is: 'overruled', value, by: winner }
      : { is: 'said', value };
  }
  return isSame || equal(shows.to, value)
    ? { is: 'said', value }
    : { is: 'overruled', value, by: winner };
}

/** The entry that says that an earlier run of the same handler goes no further; null where there is none. */
function restartedBefore(tape: Tape, run: Run): number | null {
  const found = tape.entries.findLast(
    (entry) =>
      entry.type === 'superseded' &&
      entry.n > tape.since &&
      entry.n < run.n &&
      entry.behaviour === run.behaviour &&
      entry.line === run.line,
  );
  return found?.n ?? null;
}

/** The conditions that kept a line from being reached, found by turning each round and looking further. */
async function keptBy(
  ground: Ground,
  run: Run,
  writer: Writer,
  question: Question,
): Promise<Kept[]> {
  const kept: Kept[] = [];
  const turned: SitePlace[] = [];
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
    kept.push(keeping(ground, run, instances, blocking, question));
    if (blocking.needs === null) return kept;
    turned.push(blocking.instance.place);
  }
  return kept;
}

function keeping(
  ground: Ground,
  run: Run,
  instances: Instances,
  { instance, needs }: { instance: Instance; needs: boolean | null },
  { before }: Question,
): Kept {
  const met = conditionMet(instances, instance);
  const slice = sliceOfData(instances, instance);
  const from = onTheWay(instances, instance, slice);
  const compared = [met, ...from].flatMap(({ comparisons }) => comparisons);
  const causes = causesOf(ground.tape, slice, run, run.sort === 'rule' ? before : run.n);
  const now = slice.reads.flatMap(({ part, aspect, value: was }) => {
    // What rows are made of is no aspect that the tape tells.
    if (effectBefore(ground.tape, { part, aspect, before }) === null) return [];
    const value = standingBefore(ground, { part, aspect, before });
    return equal(value, was) ? [] : [{ part, aspect, value }];
  });
  return { ...met, needs, from, near: nearIn(ground, compared, slice, before), causes, now };
}

/** The first condition in the way of a line that came out the other way than it would have had to. */
function blockerOf(
  instances: Instances,
  { script, conditions }: Writer,
  turned: readonly SitePlace[],
): { instance: Instance; needs: boolean | null } | null {
  for (const { start, end, holds: needs } of conditions) {
    const instance = instances.all.findLast(
      ({ place, site }) =>
        place.script === script &&
        site.start === start &&
        site.end === end &&
        (site.kind === 'condition' || site.kind === 'switch'),
    );
    if (instance === undefined || turned.some(({ site }) => site === instance.place.site)) continue;
    if (instance.site.kind === 'switch') return { instance, needs: null };
    const came = instance.value;
    if (came === undefined) continue;
    if (holds(came) !== needs) return { instance, needs };
  }
  return null;
}
