/** Chance that is the same from the same seed: mulberry32 (Tommy Ettinger, public domain), small, and even enough for forms. */

/** The state after this one; the seed is the first. */
export const nextState = (state: number): number => (state + 0x6d2b79f5) >>> 0;

/** The number from 0 to 1 that belongs to a state. */
export function numberAt(state: number): number {
  let mixed = Math.imul(state ^ (state >>> 15), state | 1);
  mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
}

/** One number after the other. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => numberAt((state = nextState(state)));
}
