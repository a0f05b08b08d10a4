/** What scripts said of an aspect, or would have said, that no longer counts: answers name it, since it is missed. */
import type { Effect, Run } from '../tape/tape';
import { runMet, type TakenBack } from './decision';
import type { Ground } from './ground';
import type { Question } from './question';
import { runsOfRule } from './saying';

/** The last thing said of it since `shows` that was taken back, unless the same handler or rule ran well after it. */
export function takenBackSince(
  { tape }: Ground,
  { part, aspect, before }: Question,
  shows: Effect | null,
): TakenBack | null {
  const effect = tape.entries.findLast(
    (entry): entry is Effect =>
      entry.type === 'effect' &&
      entry.n > Math.max(tape.since, shows?.n ?? 0) &&
      (before === null || entry.n < before) &&
      entry.part === part &&
      entry.aspect === aspect &&
      (entry.struck === true || tape.causeOf(entry)?.type === 'superseded'),
  );
  const superseded =
    shows !== null && tape.causeOf(shows)?.type === 'superseded' ? shows : (effect ?? null);
  if (superseded !== null && tape.causeOf(superseded)?.type === 'superseded')
    return bySuperseding(tape, superseded);
  const run = effect === undefined ? null : tape.runOf(effect);
  if (effect === undefined || run === null || ranWellAfter(tape, run, before)) return null;
  const said = { value: effect.to, line: effect.line };
  const circle = tape.takenBackAfter(run);
  const failure = circle?.failure ?? failureOf(tape, run);
  return {
    why: run.outcome === 'failed' ? 'failed' : 'circle',
    run: runMet(run),
    said,
    says: failure?.says ?? null,
    failedAt: run.outcome === 'failed' ? (failure?.line ?? null) : null,
  };
}

function bySuperseding(tape: Ground['tape'], withdrawn: Effect): TakenBack | null {
  const said = tape
    .lifeOf(withdrawn.part)
    .findLast(
      (one) => one.aspect === withdrawn.aspect && one.n < withdrawn.n && tape.runOf(one) !== null,
    );
  const run = said === undefined ? null : tape.runOf(said);
  if (said === undefined || run === null) return null;
  return {
    why: 'superseded',
    run: runMet(run),
    said: { value: said.to, line: said.line },
    says: null,
    failedAt: null,
  };
}

/** A rule whose last run failed, so that what its last good run said stands. */
export function failedSince(
  ground: Ground,
  rule: { behaviour: string; title: string },
  good: Run | null,
  before: number | null,
): TakenBack | null {
  const [last] = runsOfRule(ground, rule, before);
  if (last === undefined || last.outcome !== 'failed' || last.n < (good?.n ?? 0)) return null;
  const failure = failureOf(ground.tape, last);
  return {
    why: 'failed',
    run: runMet(last),
    said: null,
    says: failure?.says ?? null,
    failedAt: failure?.line ?? null,
  };
}

export function failureOf(tape: Ground['tape'], run: Run) {
  const error = tape.childrenOf(run).find(({ type }) => type === 'error');
  return error?.type === 'error' ? error.failure : null;
}

function ranWellAfter(tape: Ground['tape'], run: Run, before: number | null): boolean {
  return tape.entries.some(
    (entry) =>
      entry.type === 'run' &&
      entry.n > run.n &&
      (before === null || entry.n < before) &&
      entry.behaviour === run.behaviour &&
      entry.line === run.line &&
      !tape.isStruck(entry),
  );
}

/** The last step since `shows` that would have given it a value and was refused. */
export function refusedSince(
  { tape }: Ground,
  { part, aspect, before }: Question,
  shows: Effect | null,
): { entry: number; why: string } | null {
  if (aspect !== 'value' || part.includes('#')) return null;
  const entry = tape.entries.findLast(
    (one) =>
      one.type === 'refused' &&
      one.n > Math.max(tape.since, shows?.n ?? 0) &&
      (before === null || one.n < before),
  );
  const step = entry === undefined ? null : tape.causeOf(entry);
  if (entry?.type !== 'refused' || step?.type !== 'step') return null;
  return Object.values(step.step).includes(part) ? { entry: step.n, why: entry.why } : null;
}
