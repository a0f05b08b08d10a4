/** Numbers, and money: a number that stores what `round` gives for its decimals. */
import type { FieldOf } from '../definition';
import { onStep, round } from '../round';
import type { Value } from '../value';
import { moneyDecimals } from '../reading';
import type { Accepted, Fault, Kind } from './kind';

function acceptNumber(offered: unknown): Accepted {
  if (typeof offered !== 'number' || !Number.isFinite(offered))
    return { ok: false, takes: 'a finite number' };
  return { ok: true, value: offered === 0 ? 0 : offered };
}

function checkRange(
  value: number,
  field: { min?: number | undefined; max?: number | undefined },
): Fault | null {
  if (field.min !== undefined && value < field.min)
    return { code: 'rangeUnderflow', says: `At least ${field.min}.` };
  if (field.max !== undefined && value > field.max)
    return { code: 'rangeOverflow', says: `At most ${field.max}.` };
  return null;
}

export const number: Kind<FieldOf<'number'>> = {
  accept: acceptNumber,
  check(value, field) {
    const typed = value as number;
    const range = checkRange(typed, field);
    if (range !== null) return range;
    // The step base is the minimum, or zero (HTML, "step base").
    if (field.step !== undefined && !onStep(typed, field.step, field.min ?? 0)) {
      return {
        code: 'stepMismatch',
        says: `In steps of ${field.step}${field.min ? ` from ${field.min}` : ''}.`,
      };
    }
    return null;
  },
  type: () => 'number',
};

export const money: Kind<FieldOf<'money'>> = {
  accept(offered, field) {
    const number = acceptNumber(offered);
    return number.ok
      ? { ok: true, value: round(number.value as number, moneyDecimals(field)) as Value }
      : number;
  },
  check: (value, field) => checkRange(value as number, field),
  type: () => 'number',
};
