/**
 * Covering arrays: rows of values in which any two (or three) values of different axes meet at least once. Made one row
 * at a time, each the best of several candidates filled in greedily from a tuple that is still missing (Cohen, Dalal,
 * Fredman, Patton: The AETG system, IEEE TSE 23(7), 1997). The same for the same sizes.
 */
import { randomFrom } from '../random';

export type Strength = 2 | 3;

/** Candidates of which the best becomes a row. */
const CANDIDATES: Readonly<Record<Strength, number>> = { 2: 50, 3: 12 };

/** Tuples of values that have not met yet. */
class Missing {
  /** The axes of each group whose values have to meet, one group after the other. */
  readonly #groups: readonly number[];
  /** Where the tuples of a group begin, by its axes. */
  readonly #offsets: Int32Array;
  readonly #left: Uint8Array;
  readonly #gains: Int32Array;
  /** Missing tuples by axis and value. */
  readonly #counts: number[][];
  count: number;

  constructor(
    private readonly sizes: readonly number[],
    private readonly strength: Strength,
  ) {
    this.#counts = sizes.map((size) => Array.from({ length: size }, () => 0));
    this.#groups = groupsOf(sizes.length, strength);
    this.#offsets = new Int32Array(sizes.length ** strength);
    let total = 0;
    for (let g = 0; g < this.#groups.length; g += strength) {
      const axes = this.#groups.slice(g, g + strength);
      this.#offsets[axes.reduce((key, axis) => key * sizes.length + axis, 0)] = total;
      const tuples = axes.reduce((product, axis) => product * sizes[axis]!, 1);
      total += tuples;
      for (const axis of axes)
        for (let value = 0; value < sizes[axis]!; value++)
          this.#counts[axis]![value]! += tuples / sizes[axis]!;
    }
    this.#left = new Uint8Array(total).fill(1);
    this.#gains = new Int32Array(Math.max(...sizes));
    this.count = total;
  }

  /** Where the tuple that a row makes of two axes stands; `a` < `b`. */
  #pair(a: number, b: number, row: readonly number[]): number {
    return this.#offsets[a * this.sizes.length + b]! + row[a]! * this.sizes[b]! + row[b]!;
  }

  /** Likewise of three axes; `a` < `b` < `c`. */
  #triple(a: number, b: number, c: number, row: readonly number[]): number {
    const { length } = this.sizes;
    const within = (row[a]! * this.sizes[b]! + row[b]!) * this.sizes[c]! + row[c]!;
    return this.#offsets[(a * length + b) * length + c]! + within;
  }

  #place(group: number, row: readonly number[]): number {
    const groups = this.#groups;
    return this.strength === 2
      ? this.#pair(groups[group]!, groups[group + 1]!, row)
      : this.#triple(groups[group]!, groups[group + 1]!, groups[group + 2]!, row);
  }

  /** How many missing tuples each value of an axis makes with the axes that are filled, in their order. Good until the next call. */
  gains(axis: number, row: readonly number[], filled: readonly number[]): Int32Array {
    const size = this.sizes[axis]!;
    const gains = this.#gains.fill(0, 0, size);
    const left = this.#left;
    // A tuple's place goes up evenly with the value: by one for the last axis of it, by what the later ones take for others.
    const add = (first: number, step: number) => {
      for (let at = 0, place = first; at < size; at++, place += step) gains[at]! += left[place]!;
    };
    const from = row.with(axis, 0);
    for (let i = 0; i < filled.length; i++) {
      const a = filled[i]!;
      const sizeA = this.sizes[a]!;
      if (this.strength === 2) {
        if (a < axis) add(this.#pair(a, axis, from), 1);
        else add(this.#pair(axis, a, from), sizeA);
        continue;
      }
      for (let j = i + 1; j < filled.length; j++) {
        const b = filled[j]!;
        const sizeB = this.sizes[b]!;
        if (axis < a) add(this.#triple(axis, a, b, from), sizeA * sizeB);
        else if (axis < b) add(this.#triple(a, axis, b, from), sizeB);
        else add(this.#triple(a, b, axis, from), 1);
      }
    }
    return gains;
  }

  /** Takes what a whole row makes off the list. */
  take(row: readonly number[]): void {
    for (let g = 0; g < this.#groups.length; g += this.strength) {
      const place = this.#place(g, row);
      if (this.#left[place] === 0) continue;
      this.#left[place] = 0;
      this.count--;
      for (let i = g; i < g + this.strength; i++) {
        const axis = this.#groups[i]!;
        this.#counts[axis]![row[axis]!]!--;
      }
    }
  }

  /** The values that most missing tuples have. */
  scarcest(): AxisValue[] {
    let scarcest: AxisValue[] = [];
    let most = 0;
    this.#counts.forEach((counts, axis) =>
      counts.forEach((count, value) => {
        if (count > most) [scarcest, most] = [[[axis, value]], count];
        else if (count === most) scarcest.push([axis, value]);
      }),
    );
    return scarcest;
  }

  worth(row: readonly number[]): number {
    let worth = 0;
    for (let g = 0; g < this.#groups.length; g += this.strength)
      worth += this.#left[this.#place(g, row)]!;
    return worth;
  }
}

function groupsOf(axes: number, strength: Strength): number[] {
  const groups: number[] = [];
  for (let i = 0; i < axes; i++)
    for (let j = i + 1; j < axes; j++)
      if (strength === 2) groups.push(i, j);
      else for (let k = j + 1; k < axes; k++) groups.push(i, j, k);
  return groups;
}

/** Tuples up to which the whole is made several times, and the smallest kept: chance makes a tenth of difference. */
const SMALL = 10_000;
const MOST_TRIES = 30;
/** Tuples that are looked up for one array, about a second of work at most; of larger arrays fewer candidates are tried. */
const LOOKED_UP = 50_000_000;

/** The least rows that an array can have: as many as the largest axes have combinations. */
export function leastRows(sizes: readonly number[], strength: Strength): number {
  return [...sizes]
    .toSorted((a, b) => b - a)
    .slice(0, strength)
    .reduce((a, b) => a * b, 1);
}

/**
 * Rows of places of values, from 0. `sizes` says how many values each axis has; with no more axes than `strength` it is
 * all combinations. Where more than `most` rows are needed it ends with one row more than that.
 */
export function coveringArray(
  sizes: readonly number[],
  strength: Strength,
  most = Infinity,
): number[][] {
  if (sizes.length <= strength) return product(sizes, most + 1);
  const random = randomFrom(sizes.reduce((seed, size) => seed * 31 + size, 7));
  const tuples = new Missing(sizes, strength).count;
  const tries = Math.max(1, Math.min(MOST_TRIES, Math.floor(SMALL / tuples)));
  const least = leastRows(sizes, strength);
  let best = oneArray(sizes, strength, most, random);
  for (let i = 1; i < tries && best.length > least; i++) {
    const other = oneArray(sizes, strength, most, random);
    if (other.length < best.length) best = other;
  }
  return best;
}

function oneArray(
  sizes: readonly number[],
  strength: Strength,
  most: number,
  random: () => number,
): number[][] {
  const missing = new Missing(sizes, strength);
  const candidates = candidatesFor(sizes, strength);
  const rows: number[][] = [];
  while (missing.count > 0 && rows.length <= most) {
    let best: number[] = [];
    let worthMost = -1;
    const scarcest = missing.scarcest();
    for (let i = 0; i < candidates; i++) {
      const row = candidate(sizes, missing, scarcest, random);
      const worth = missing.worth(row);
      if (worth > worthMost) [best, worthMost] = [row, worth];
    }
    // A candidate begins with the value that misses most, so it always makes one tuple at least.
    missing.take(best);
    rows.push(best);
  }
  return rows;
}

/** How many candidates are tried for each row, so that the whole takes about as long as `LOOKED_UP` says. */
function candidatesFor(sizes: readonly number[], strength: Strength): number {
  const values = sizes.reduce((sum, size) => sum + size, 0);
  // On average half of the axes are filled, and a third of the pairs of them.
  const gains = strength === 2 ? sizes.length / 2 : sizes.length ** 2 / 6;
  // Rows come to about twice the least.
  const each = values * gains * 2 * leastRows(sizes, strength);
  return Math.max(1, Math.min(CANDIDATES[strength], Math.floor(LOOKED_UP / each)));
}

type AxisValue = readonly [axis: number, value: number];

/** A row that begins with one of the scarcest values and takes for each further axis, in any order, the one that makes most. */
function candidate(
  sizes: readonly number[],
  missing: Missing,
  scarcest: readonly AxisValue[],
  random: () => number,
): number[] {
  const [first, value] = scarcest[Math.floor(random() * scarcest.length)]!;
  const row = sizes.map(() => 0);
  row[first] = value;
  const order = sizes.map((_, axis) => axis).filter((axis) => axis !== first);
  for (let i = order.length - 1; i > 0; i--) {
    const other = Math.floor(random() * (i + 1));
    [order[i], order[other]] = [order[other]!, order[i]!];
  }
  const filled = [first];
  for (const axis of order) {
    row[axis] = anyOfMost(missing.gains(axis, row, filled), sizes[axis]!, random);
    const behind = filled.findIndex((one) => one > axis);
    filled.splice(behind < 0 ? filled.length : behind, 0, axis);
  }
  return row;
}

/** The place of the largest of the first numbers; of several, any. */
function anyOfMost(numbers: Int32Array, count: number, random: () => number): number {
  let chosen = 0;
  let ties = 1;
  for (let at = 1; at < count; at++) {
    if (numbers[at]! < numbers[chosen]!) continue;
    ties = numbers[at] === numbers[chosen] ? ties + 1 : 1;
    if (ties === 1 || random() * ties < 1) chosen = at;
  }
  return chosen;
}

/** All combinations, the last axis changing fastest; no more than `most` of them. */
export function product(sizes: readonly number[], most = Infinity): number[][] {
  const all = sizes.reduce((count, size) => count * size, 1);
  return Array.from({ length: Math.min(all, most) }, (_, n) => {
    let left = n;
    return sizes
      .toReversed()
      .map((size) => {
        const at = left % size;
        left = Math.floor(left / size);
        return at;
      })
      .toReversed();
  });
}
