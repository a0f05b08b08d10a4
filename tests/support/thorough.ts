/** How much is tried: a part of it in `npm test`, all of it in `npm run attack`. */

/** Whether everything is tried. */
export const thorough = process.env.TAVRO_ATTACK === 'all';

/** How many of so many sessions, programs or messages made at random are tried: a twentieth where not all are. */
export function shareOf(whole: number): number {
  return thorough ? whole : Math.ceil(whole / 20);
}

/** Every so many-th of a list, so that the quick part still meets every sort of it. */
export function someOf<T>(all: readonly T[], every: number): T[] {
  return thorough ? [...all] : all.filter((_, i) => i % every === 0);
}
