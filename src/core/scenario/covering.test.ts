import { expect, test } from 'vitest';
import { coveringArray, type Strength } from './covering';

const times = (count: number, size: number) => Array.from({ length: count }, () => size);

/** Whether any values of `strength` axes meet in some row. */
function covers(rows: readonly number[][], sizes: readonly number[], strength: Strength): boolean {
  const groups = sizes.flatMap((_, i) =>
    sizes.flatMap((__, j) =>
      j <= i
        ? []
        : strength === 2
          ? [[i, j]]
          : sizes.flatMap((___, k) => (k <= j ? [] : [[i, j, k]])),
    ),
  );
  return groups.every((axes) => {
    const all = axes.reduce((product, axis) => product * sizes[axis]!, 1);
    return new Set(rows.map((row) => axes.map((axis) => row[axis]).join())).size === all;
  });
}

/**
 * The usual cases of pairwise testing. `known` is the largest size that published tools give, as Czerwonka, Pairwise
 * Testing in the Real World (PNSQC 2006), table 1, lists them for AETG, PairTest, TConfig, CTS, Jenny, DDA, AllPairs and
 * PICT; from memory.
 */
const PAIRWISE: [name: string, sizes: number[], known: number][] = [
  ['3^4', times(4, 3), 9],
  ['3^13', times(13, 3), 20],
  ['4^15 3^17 2^29', [...times(15, 4), ...times(17, 3), ...times(29, 2)], 41],
  ['4^1 3^39 2^35', [4, ...times(39, 3), ...times(35, 2)], 30],
  ['2^100', times(100, 2), 16],
  ['10^20', times(20, 10), 231],
];

test.each(PAIRWISE)('%s: every pair meets, in no more rows than known', (_, sizes, known) => {
  const rows = coveringArray(sizes, 2);
  expect(covers(rows, sizes, 2)).toBe(true);
  expect(rows.length).toBeLessThanOrEqual(known);
});

/** Of orthogonal arrays (Hedayat, Sloane, Stufken: Orthogonal Arrays, 1999) there cannot be fewer rows; greedy ones take less than twice as many. */
test.each([
  ['3^6', times(6, 3), 27],
  ['4^6', times(6, 4), 64],
  ['2^10', times(10, 2), 8],
  ['5 4 3 2 2', [5, 4, 3, 2, 2], 60],
])('%s: every three values meet', (_, sizes, least) => {
  const rows = coveringArray(sizes, 3);
  expect(covers(rows, sizes, 3)).toBe(true);
  expect(rows.length).toBeGreaterThanOrEqual(least);
  expect(rows.length).toBeLessThan(2.1 * least);
});

test('is the same each time, and all combinations where there are no more axes', () => {
  expect(coveringArray([3, 2, 4, 2], 2)).toEqual(coveringArray([3, 2, 4, 2], 2));
  expect(coveringArray([2, 3], 2)).toHaveLength(6);
  expect(coveringArray([1, 1, 1, 1], 2)).toEqual([[0, 0, 0, 0]]);
});
