/** Whether an invariant holds: what it said last, since when, and what it read. */
import { FORM } from '../session/tree';
import type { Run } from '../tape/tape';
import { nobodys, runMet, type Decision } from './decision';
import { causeOfRead } from './explained';
import type { Ground } from './ground';
import { invariantIn, type Question } from './question';

export function aboutInvariant({ tape }: Ground, { part, aspect, before }: Question): Decision {
  const title = invariantIn(aspect);
  const row = part === FORM ? null : part;
  const runs = tape.entries.filter(
    (entry): entry is Run =>
      entry.type === 'run' &&
      entry.sort === 'invariant' &&
      entry.title === title &&
      (entry.row ?? null) === row &&
      (before === null || entry.n < before) &&
      !tape.isStruck(entry),
  );
  const last = runs.at(-1);
  if (last === undefined) return nobodys(part, aspect, null, 'never');
  const since = runs.findLast(
    (run, i) => i === 0 || (runs[i - 1]!.outcome === 'broken') !== (run.outcome === 'broken'),
  )!;
  return {
    ...nobodys(part, aspect, last.outcome !== 'broken', 'judged'),
    entry: since.n,
    step: tape.stepOf(since),
    run: runMet(last),
    line: last.line,
    causes: last.reads.map((read) => causeOfRead(tape, read, last.n)),
    asOf: last.n,
  };
}
