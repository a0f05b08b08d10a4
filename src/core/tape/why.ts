/**
 * Asking a tape why: who said last what an aspect is, because of what, back to the step of a person. Gives facts; the
 * words for people are made where labels are known.
 */
import type { Entry } from '../session/entries';
import type { Effect, Run, Tape } from './tape';

export type Because =
  | { type: 'said'; effect: Effect; run: Run }
  | { type: 'withdrawn'; effect: Effect; run: Run }
  | { type: 'entered'; effect: Effect; step: Entry }
  | { type: 'corrected'; effect: Effect }
  /** A run was set off by this event. */
  | { type: 'event'; entry: Entry & { type: 'event' } }
  /** A run went on when what it waited for came. */
  | { type: 'answered'; entry: Entry & { type: 'answered' } }
  | { type: 'opened'; entry: Entry }
  | { type: 'step'; entry: Entry };

/** The chain of reasons for an aspect as it stands at the end of the tape, nearest first; empty when nothing was said. */
export function why(tape: Tape, part: string, aspect: string): Because[] {
  const effect = tape
    .lifeOf(part)
    .findLast((entry) => entry.aspect === aspect && entry.covered !== true);
  return effect === undefined ? [] : reasons(tape, effect, new Set());
}

function reasons(tape: Tape, effect: Effect, seen: Set<number>): Because[] {
  if (seen.has(effect.n)) return [];
  seen.add(effect.n);
  const cause = tape.causeOf(effect);
  if (cause?.type !== 'run') {
    if (effect.by === 'form') return [{ type: 'corrected', effect }];
    return cause === null ? [] : [{ type: 'entered', effect, step: cause }];
  }
  const run = cause as Run;
  const said: Because = { type: effect.withdrawn === true ? 'withdrawn' : 'said', effect, run };
  return [said, ...reasonsOfRun(tape, run, seen)];
}

function reasonsOfRun(tape: Tape, run: Run, seen: Set<number>): Because[] {
  if (run.sort === 'rule') {
    const trigger = latestChangeRead(tape, run);
    return trigger === null ? rootOf(tape, run) : reasons(tape, trigger, seen);
  }
  const event = tape.causeOf(run);
  if (event?.type === 'answered') {
    const asking = event.call === null ? null : tape.causeOf(tape.entry(event.call)!);
    return [
      { type: 'answered', entry: event },
      ...(asking?.type === 'run' ? reasonsOfRun(tape, asking as Run, seen) : rootOf(tape, event)),
    ];
  }
  if (event?.type !== 'event') return rootOf(tape, run);
  const before = tape.causeOf(event);
  const rest =
    before?.type === 'effect' ? reasons(tape, before as Effect, seen) : rootOf(tape, event);
  return [{ type: 'event', entry: event }, ...rest];
}

/** The newest change before the run of something the run read. */
function latestChangeRead(tape: Tape, run: Run): Effect | null {
  const read = new Set(run.reads.map(({ part, aspect }) => `${part}.${aspect}`));
  const found = tape.entries.findLast(
    (entry) =>
      entry.n < run.n &&
      entry.n > tape.since &&
      entry.type === 'effect' &&
      !('struck' in entry) &&
      read.has(`${entry.part}.${entry.aspect}`),
  );
  return (found as Effect | undefined) ?? null;
}

function rootOf(tape: Tape, entry: Entry): Because[] {
  let root = entry;
  for (let cause = tape.causeOf(root); cause !== null; cause = tape.causeOf(root)) root = cause;
  return root.type === 'opened'
    ? [{ type: 'opened', entry: root }]
    : root.type === 'step'
      ? [{ type: 'step', entry: root }]
      : [];
}
