/**
 * Covering arrays: rows of values in which any two (or three) values of different axes meet at least once. Made one row
 * at a time, each the best of several candidates filled in greedily from a tuple that is still missing (Cohen, Dalal,
 * Fredman, Patton: The AETG system, IEEE TSE 23(7), 1997). The same for the same sizes.
 */
export type Strength = 2 | 3;

/** Candidates of which the best becomes a row. */
const CANDIDATES: Readonly<Record<Strength, number>> = { 2: 50, 3: 12 };

/** Tuples of values that have not met yet. */
class Missing {
  readonly #sizes: readonly number[];
  readonly #strength: Strength;
  readonly #offsets = new Map<number, number>();
  readonly #left: Uint8Array;
  /** Missing tuples by axis and value, to begin with the scarcest. */
  readonly counts: number[][];
  count: number;

  constructor(sizes: readonly number[], strength: Strength) {
    this.#sizes = sizes;
    this.#strength = strength;
    this.counts = sizes.map((size) => Array.from({ length: size }, () => 0));
    let total = 0;
    for (const axes of this.groups()) {
      this.#offsets.set(this.#groupKey(axes), total);
      const tuples = axes.reduce((product, axis) => product * sizes[axis]!, 1);
      total += tuples;
      for (const axis of axes)
        for (let value = 0; value < sizes[axis]!; value++)
          this.counts[axis]![value]! += tuples / sizes[axis]!;
    }
    this.#left = new Uint8Array(total).fill(1);
    this.count = total;
  }

  /** All groups of axes whose values have to meet. */
  *groups(): Iterable<number[]> {
    const { length } = this.#sizes;
    for (let i = 0; i < length; i++)
      for (let j = i + 1; j < length; j++)
        if (this.#strength === 2) yield [i, j];
        else for (let k = j + 1; k < length; k++) yield [i, j, k];
  }

  #groupKey(axes: readonly number[]): number {
    return axes.reduce((key, axis) => key * this.#sizes.length + axis, 0);
  }

  #place(axes: readonly number[], row: readonly number[]): number {
    let at = 0;
    for (const axis of axes) at = at * this.#sizes[axis]! + row[axis]!;
    return this.#offsets.get(this.#groupKey(axes))! + at;
  }

  isMissing(axes: readonly number[], row: readonly number[]): boolean {
    return this.#left[this.#place(axes, row)] === 1;
  }

  /** How many missing tuples a value of one axis would make with the axes that have a value. */
  gain(axis: number, value: number, row: number[], filled: readonly number[]): number {
    const before = row[axis]!;
    row[axis] = value;
    let gain = 0;
    if (this.#strength === 2) {
      for (const other of filled)
        if (this.isMissing(other < axis ? [other, axis] : [axis, other], row)) gain++;
    } else
      for (let a = 0; a < filled.length; a++)
        for (let b = a + 1; b < filled.length; b++)
          if (
            this.isMissing(
              [filled[a]!, filled[b]!, axis].toSorted((x, y) => x - y),
              row,
            )
          )
            gain++;
    row[axis] = before;
    return gain;
  }

  /** Takes what a whole row makes off the list; gives how many those were. */
  take(row: readonly number[]): void {
    for (const axes of this.groups()) {
      const place = this.#place(axes, row);
      if (this.#left[place] === 0) continue;
      this.#left[place] = 0;
      this.count--;
      for (const axis of axes) this.counts[axis]![row[axis]!]!--;
    }
  }

  worth(row: readonly number[]): number {
    let worth = 0;
    for (const axes of this.groups()) if (this.isMissing(axes, row)) worth++;
    return worth;
  }
}

/** Tuples up to which the whole is made several times, and the smallest kept: chance makes a tenth of difference. */
const SMALL = 10_000;
const MOST_TRIES = 30;

/** Rows of places of values, from 0. `sizes` says how many values each axis has; with no more axes than `strength` it is all combinations. */
export function coveringArray(sizes: readonly number[], strength: Strength): number[][] {
  if (sizes.length <= strength) return product(sizes);
  const random = randomFrom(sizes.reduce((seed, size) => seed * 31 + size, 7));
  const tuples = new Missing(sizes, strength).count;
  const tries = Math.max(1, Math.min(MOST_TRIES, Math.floor(SMALL / tuples)));
  const least = [...sizes]
    .toSorted((a, b) => b - a)
    .slice(0, strength)
    .reduce((a, b) => a * b, 1);
  let best = oneArray(sizes, strength, random);
  // No array has fewer rows than the largest axes have combinations.
  for (let i = 1; i < tries && best.length > least; i++) {
    const other = oneArray(sizes, strength, random);
    if (other.length < best.length) best = other;
  }
  return best;
}

function oneArray(sizes: readonly number[], strength: Strength, random: () => number): number[][] {
  const missing = new Missing(sizes, strength);
  const rows: number[][] = [];
  while (missing.count > 0) {
    let best: number[] = [];
    let most = -1;
    for (let i = 0; i < CANDIDATES[strength]; i++) {
      const row = candidate(sizes, missing, random);
      const worth = missing.worth(row);
      if (worth > most) [best, most] = [row, worth];
    }
    // A candidate begins with the value that misses most, so it always makes one tuple at least.
    missing.take(best);
    rows.push(best);
  }
  return rows;
}

/** A row that begins with the value that misses most and takes for each further axis, in any order, the one that makes most. */
function candidate(sizes: readonly number[], missing: Missing, random: () => number): number[] {
  let scarce: [axis: number, value: number][] = [];
  let most = 0;
  missing.counts.forEach((counts, axis) =>
    counts.forEach((count, at) => {
      if (count > most) [scarce, most] = [[[axis, at]], count];
      else if (count === most) scarce.push([axis, at]);
    }),
  );
  const [first, value] = scarce[Math.floor(random() * scarce.length)]!;
  const row = sizes.map(() => 0);
  row[first] = value;
  const order = sizes.map((_, axis) => axis).filter((axis) => axis !== first);
  for (let i = order.length - 1; i > 0; i--) {
    const other = Math.floor(random() * (i + 1));
    [order[i], order[other]] = [order[other]!, order[i]!];
  }
  const filled = [first];
  for (const axis of order) {
    let chosen: number[] = [];
    let best = -1;
    for (let at = 0; at < sizes[axis]!; at++) {
      const gain = missing.gain(axis, at, row, filled);
      if (gain > best) [chosen, best] = [[at], gain];
      else if (gain === best) chosen.push(at);
    }
    row[axis] = chosen[Math.floor(random() * chosen.length)]!;
    filled.push(axis);
  }
  return row;
}

/** All combinations, the last axis changing fastest. */
export function product(sizes: readonly number[]): number[][] {
  return sizes.reduce<number[][]>(
    (rows, size) => rows.flatMap((row) => Array.from({ length: size }, (_, at) => [...row, at])),
    [[]],
  );
}

/** Mulberry32, a small generator in the public domain: the same numbers from the same seed. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}
