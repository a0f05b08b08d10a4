/** A time of day, `HH:MM`, and a moment, RFC 3339. Times order as texts; moments are compared as instants. */
import type { FieldOf } from '../definition';
import { isDateTime, isTime } from '../formats';
import { momentInWords } from '../reading';
import type { Kind } from './kind';

const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));

export const time: Kind<FieldOf<'time'>> = {
  accept(offered) {
    if (typeof offered === 'string' && isTime(offered)) return { ok: true, value: offered };
    return { ok: false, takes: 'a time spelled HH:MM' };
  },
  check(value, field) {
    const typed = value as string;
    if (field.min !== undefined && typed < field.min)
      return { code: 'rangeUnderflow', says: `Not before ${field.min}.` };
    if (field.max !== undefined && typed > field.max)
      return { code: 'rangeOverflow', says: `Not after ${field.max}.` };
    if (
      field.step !== undefined &&
      (minutes(typed) - minutes(field.min ?? '00:00')) % field.step !== 0
    ) {
      return {
        code: 'stepMismatch',
        says: `Every ${field.step} minutes${field.min === undefined ? '' : ` from ${field.min}`}.`,
      };
    }
    return null;
  },
  type: () => 'string',
};

export const datetime: Kind<FieldOf<'datetime'>> = {
  accept(offered) {
    if (typeof offered === 'string' && isDateTime(offered)) return { ok: true, value: offered };
    return { ok: false, takes: 'a date and time spelled as 2031-05-02T09:00:00Z (RFC 3339)' };
  },
  check(value, field) {
    const moment = Date.parse(value as string);
    if (field.min !== undefined && moment < Date.parse(field.min))
      return { code: 'rangeUnderflow', says: `Not before ${momentInWords(field.min)}.` };
    if (field.max !== undefined && moment > Date.parse(field.max))
      return { code: 'rangeOverflow', says: `Not after ${momentInWords(field.max)}.` };
    return null;
  },
  type: () => 'string',
};
