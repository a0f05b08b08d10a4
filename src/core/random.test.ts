import { expect, test } from 'vitest';
import { randomFrom } from './random';

/** The first numbers of mulberry32 from seed 1, as they are commonly quoted (from memory). */
const QUOTED = [0.6270739405881613, 0.002735721180215478, 0.5274470399599522];

test('the numbers are those of the published generator: recordings of every version play the same', () => {
  const next = randomFrom(1);
  expect(QUOTED.map(() => next())).toEqual(QUOTED);
});

test('a seed beyond 32 bits is taken by its last 32', () => {
  expect(randomFrom(2 ** 32 + 1)()).toBe(QUOTED[0]);
});
