/**
 * Rounding on the decimal digits a number prints, half away from zero: `round(1.005, 2)` is `1.01`,
 * where binary rounding would give 1. Also the exact decimal arithmetic that the `step` constraint needs.
 */

/** A finite number as `digits × 10^exponent`, exactly as ECMAScript prints it (Number::toString, ECMA-262 6.1.6.1.20). */
export interface Decimal {
  digits: bigint;
  exponent: number;
}

export function toDecimal(x: number): Decimal {
  const [mantissa, power = '0'] = String(x).split('e') as [string, string?];
  const [whole, fraction = ''] = mantissa.split('.') as [string, string?];
  return { digits: BigInt(whole + fraction), exponent: Number(power) - fraction.length };
}

/**
 * Rounds `x` to `places` decimals, half away from zero. Negative places round to tens, hundreds and so on.
 * Not finite numbers come back as they are; the result is never −0.
 */
export function round(x: number, places = 0): number {
  if (!Number.isFinite(x)) return x;
  if (!Number.isInteger(places)) throw new RangeError('round: places must be a whole number');
  const { digits, exponent } = toDecimal(x);
  const drop = -exponent - places;
  if (drop <= 0) return x + 0 === 0 ? 0 : x;
  const size = digits < 0n ? -digits : digits;
  // More digits than the number has are dropped: nothing is left, and ten to a huge power need not be built.
  if (drop > size.toString().length) return 0;
  const unit = 10n ** BigInt(drop);
  const rounded = (size + unit / 2n) / unit;
  const result = Number(`${digits < 0n ? '-' : ''}${rounded}e${-places}`);
  return result === 0 ? 0 : result;
}

/** Whether `value` is `base` plus a whole number of `step`s, computed on decimal digits. */
export function onStep(value: number, step: number, base: number): boolean {
  const [v, s, b] = [toDecimal(value), toDecimal(step), toDecimal(base)];
  const low = Math.min(v.exponent, s.exponent, b.exponent);
  // Beyond what a double can resolve, HTML's own algorithm finds no mismatch either.
  if (Math.max(v.exponent, s.exponent, b.exponent) - low > 400) return true;
  const scale = (d: Decimal) => d.digits * 10n ** BigInt(d.exponent - low);
  return (scale(v) - scale(b)) % scale(s) === 0n;
}
