/** Rounding and steps against decimal.js (https://github.com/MikeMcl/decimal.js), an independent decimal library. */
import { Decimal } from 'decimal.js';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { onStep, round } from '../../src/core/form/round';

const SEED = 20310502;

/** decimal.js calls it ROUND_HALF_UP: "rounds towards nearest neighbour; if equidistant, away from zero". */
const theirs = (x: number, places: number) => {
  if (places >= 0)
    return new Decimal(x).toDecimalPlaces(places, Decimal.ROUND_HALF_UP).toNumber() + 0;
  const unit = new Decimal(10).pow(-places);
  return (
    new Decimal(x).div(unit).toDecimalPlaces(0, Decimal.ROUND_HALF_UP).mul(unit).toNumber() + 0
  );
};

test('round is as decimal.js on 10,000 seeded values', () => {
  Decimal.set({ precision: 400, toExpNeg: -400, toExpPos: 400 });
  const double = fc.double({ noNaN: true, noDefaultInfinity: true });
  // Values as forms have them: near halves, where binary rounding goes wrong.
  const halves = fc
    .tuple(fc.integer({ min: -1_000_000, max: 1_000_000 }), fc.integer({ min: 0, max: 6 }))
    .map(([n, p]) => Number(`${n}.${'0'.repeat(p)}5`));
  fc.assert(
    fc.property(
      fc.oneof(double, halves, fc.double({ min: -1e6, max: 1e6, noNaN: true })),
      fc.integer({ min: -8, max: 12 }),
      (x, places) => {
        expect(round(x, places)).toBe(theirs(x, places));
      },
    ),
    { seed: SEED, numRuns: 10_000 },
  );
});

test.each([
  // ECMAScript's well-known surprises: the left number is not what it looks like in binary.
  [1.005, 2, 1.01],
  [1.255, 2, 1.26],
  [8.345, 2, 8.35],
  [-1.005, 2, -1.01],
  [2.5, 0, 3],
  [-2.5, 0, -3],
  [1e21, 2, 1e21],
  [5e-324, 2, 0],
  [1234, -2, 1200],
  [1250, -2, 1300],
  [-0.001, 2, 0],
])('round(%d, %d) is %d', (x, places, expected) => {
  expect(Object.is(round(x, places), expected)).toBe(true);
});

test('onStep is as decimal.js on 5,000 seeded values', () => {
  const decimal = fc
    .tuple(fc.integer({ min: -100_000, max: 100_000 }), fc.integer({ min: 0, max: 4 }))
    .map(([n, p]) => Number(new Decimal(n).div(new Decimal(10).pow(p))));
  fc.assert(
    fc.property(decimal, decimal, decimal, (value, step, base) => {
      fc.pre(step > 0);
      expect(onStep(value, step, base)).toBe(new Decimal(value).minus(base).mod(step).isZero());
    }),
    { seed: SEED, numRuns: 5000 },
  );
});
