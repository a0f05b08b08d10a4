/** A calendar date, `YYYY-MM-DD`; its spelling orders like its days, so ranges compare as texts. */
import type { FieldOf } from '../definition';
import { isDate } from '../formats';
import type { Kind } from './kind';

export const date: Kind<FieldOf<'date'>> = {
  accept(offered) {
    if (typeof offered === 'string' && isDate(offered)) return { ok: true, value: offered };
    return { ok: false, takes: 'a date spelled YYYY-MM-DD' };
  },
  check(value, field) {
    const day = value as string;
    if (field.min !== undefined && day < field.min)
      return { code: 'rangeUnderflow', says: `Not before ${field.min}.` };
    if (field.max !== undefined && day > field.max)
      return { code: 'rangeOverflow', says: `Not after ${field.max}.` };
    return null;
  },
  type: () => 'string',
};
