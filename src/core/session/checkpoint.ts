/**
 * Checkpoints of a session: a search goes back to one and on from there, instead of playing all steps again. Each part
 * of a session that changes keeps what it holds and puts it back; a checkpoint can be gone back to any number of times, in
 * any order, and between steps only. What the journal holds cannot serve for that: it leads back to the beginning of a
 * step, and through every step in between.
 *
 * Left as they are: numbers that are given once (runs, calls, settlings, stops), which nothing outside can tell.
 */
import type { Rooms } from './rooms';

/** Puts back what was kept. */
export type Restore = () => void;

export function keepMap<K, V>(map: Map<K, V>): Restore {
  const kept = [...map];
  return () => {
    map.clear();
    for (const [key, value] of kept) map.set(key, value);
  };
}

export function keepSet<V>(set: Set<V>): Restore {
  const kept = [...set];
  return () => {
    set.clear();
    for (const value of kept) set.add(value);
  };
}

/** Keeps how a session stands. No step may be going on. */
export function checkpointOf({
  clock,
  situation,
  progress,
  state,
  tape,
  waiting,
  opened,
  ties,
  ruleClaims,
  services,
  corrections,
  settling,
  stopping,
}: Rooms): Restore {
  const kept = [
    clock,
    situation,
    progress,
    state,
    ties,
    tape,
    waiting,
    opened,
    services,
    corrections,
    settling,
  ].map((part) => part.checkpoint());
  return () => {
    ruleClaims.forget();
    stopping.end();
    for (const restore of kept) restore();
  };
}
