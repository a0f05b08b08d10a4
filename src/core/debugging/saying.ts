/** Where scripts say something: the run, and the instance of the statement in it. */
import type { Value } from '../form/value';
import { equal } from '../form/value';
import type { Run } from '../tape/tape';
import type { Line } from '../wire/line';
import { placeOf } from '../wire/line';
import { inDetail, type Ground } from './ground';
import { Instances, type Instance, type Said } from './instances';
import type { Question } from './question';

export interface Saying {
  run: Run;
  instances: Instances;
  instance: Instance;
  line: Line;
}

/** Where a run said an aspect last; on the line that is known, where one is. */
export async function saidIn(
  ground: Ground,
  run: Run,
  { part, aspect }: Pick<Question, 'part' | 'aspect'>,
  line: Line | null,
): Promise<Saying | null> {
  const { instances } = await inDetail(ground, run);
  const found = lastSaid(
    instances,
    (one) =>
      one.part === part &&
      one.aspect === aspect &&
      !one.withdrawn &&
      (line === null || one.line === line),
  );
  return found === null ? null : { run, instances, ...found };
}

function lastSaid(
  instances: Instances,
  fits: (said: Said) => boolean,
): { instance: Instance; line: Line } | null {
  for (const instance of instances.all.toReversed()) {
    const said = instance.said.findLast(fits);
    if (said !== undefined) return { instance, line: said.line };
  }
  return null;
}

/** So many runs of a rule for rows are looked through for the one of a certain row. */
const MOST_RUNS = 50;

/** The runs of a rule before a moment, the last first. */
export function runsOfRule(
  { tape }: Ground,
  { behaviour, title }: { behaviour: string; title: string },
  before: number | null,
): Run[] {
  return tape.entries
    .filter(
      (entry): entry is Run =>
        entry.type === 'run' &&
        entry.sort === 'rule' &&
        entry.n > tape.since &&
        (before === null || entry.n < before) &&
        entry.behaviour === behaviour &&
        entry.title === title,
    )
    .toReversed();
}

/**
 * Where a rule says an aspect now: in its last good run, since each says everything anew, be it the same as before. One
 * for rows runs once for each of them.
 */
export async function saidByRule(
  ground: Ground,
  rule: { behaviour: string; title: string },
  question: Question,
): Promise<Saying | null> {
  const runs = runsOfRule(ground, rule, question.before)
    .filter((run) => run.outcome === 'ended' && !ground.tape.isStruck(run))
    .slice(0, question.part.includes('#') ? MOST_RUNS : 1);
  for (const run of runs) {
    const found = await saidIn(ground, run, question, null);
    if (found !== null) return found;
  }
  return null;
}

/** So many runs of handlers are looked through, and so many of them at once. */
const MOST_HANDLED = 200;
const AT_ONCE = 25;

/** The handler that said a value last where saying it changed nothing, so that no effect tells of it. */
export async function saidByHandler(
  ground: Ground,
  question: Question,
  value: Value,
): Promise<Saying | null> {
  const { tape, sites } = ground;
  const runs = tape.entries
    .filter(
      (entry): entry is Run =>
        entry.type === 'run' &&
        entry.sort === 'handler' &&
        entry.n > tape.since &&
        (question.before === null || entry.n < question.before) &&
        !tape.isStruck(entry),
    )
    .slice(-MOST_HANDLED)
    .toReversed();
  for (let at = 0; at < runs.length; at += AT_ONCE) {
    const some = runs.slice(at, at + AT_ONCE);
    const detailed = await ground.inspect(some.map(({ n }) => n));
    for (const run of some) {
      const details = detailed.find(({ entry }) => entry === run.n)?.details ?? [];
      const found = lastSaid(
        new Instances(details, sites),
        (one) =>
          one.part === question.part &&
          one.aspect === question.aspect &&
          !one.withdrawn &&
          equal(one.value, value),
      );
      // Once more with the stretches before it, for what led there.
      if (found !== null) return saidIn(ground, run, question, found.line);
    }
  }
  return null;
}

/** The last statement of a run that had begun when the run put this entry on the tape, or that is on a line. */
export async function placed(
  ground: Ground,
  run: Run,
  { entry, line }: { entry: number; line: Line | null },
): Promise<Saying | null> {
  const { instances } = await inDetail(ground, run);
  const by = instances.all.findLast(({ entries }) => entries.includes(entry));
  if (by !== undefined) return { run, instances, instance: by, line: line ?? by.site.line };
  if (line === null) return null;
  const place = placeOf(line, run.behaviour);
  const on = instances.all.findLast(
    (one) =>
      one.site.kind === 'statement' &&
      one.place.script === place.script &&
      one.site.line <= place.line &&
      !/^(?:if|for|while|do|switch|try)\b/.test(one.site.text),
  );
  return on === undefined ? null : { run, instances, instance: on, line };
}
