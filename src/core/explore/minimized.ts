/** Delta debugging: the smallest list of which the same can still be said (Zeller, Hildebrandt: Simplifying and isolating failure-inducing input, IEEE TSE 28(2), 2002, algorithm ddmin). */

/**
 * A part of `items`, in their order, of which `still` holds and no item of which can be left out. `still` has to hold of
 * all of them.
 */
export function minimized<T>(items: readonly T[], still: (items: readonly T[]) => boolean): T[] {
  let now = [...items];
  if (now.length > 0 && still([])) return [];
  let pieces = 2;
  while (now.length >= 2) {
    const size = Math.ceil(now.length / pieces);
    const starts = Array.from({ length: Math.ceil(now.length / size) }, (_, i) => i * size);
    const subset = starts.map((at) => now.slice(at, at + size)).find(still);
    if (subset !== undefined && subset.length < now.length) {
      now = subset;
      pieces = 2;
      continue;
    }
    // Of two pieces each is what the other leaves.
    const rest = pieces === 2 ? undefined : starts.map((at) => now.toSpliced(at, size)).find(still);
    if (rest !== undefined) {
      now = rest;
      pieces = Math.max(pieces - 1, 2);
      continue;
    }
    if (pieces >= now.length) break;
    pieces = Math.min(now.length, pieces * 2);
  }
  return now;
}
