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

/** How a session and what runs its scripts stood, to go back to. */
export interface Checkpoint {
  /** Goes back to it, whatever was opened and done since. Throws where other scripts have been loaded meanwhile. */
  restore(): void;
  /** It will not be gone back to again: its memory serves the next one. */
  release(): void;
}

/** Several as one, in their order. */
export function inOrder(kept: readonly Restore[]): Restore {
  return () => {
    for (const restore of kept) restore();
  };
}

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
  invariants,
  stopping,
}: Rooms): Restore {
  const restore = inOrder(
    [
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
      invariants,
    ].map((part) => part.checkpoint()),
  );
  return () => {
    ruleClaims.forget();
    stopping.end();
    restore();
  };
}
