/** Text of one or many lines, kept as typed; only the empty text becomes empty (semantics 2). */
import type { FieldOf } from '../definition';
import { isEmail } from '../formats';
import { isAbsoluteUrl } from '../url';
import type { Kind } from './kind';

export const text: Kind<FieldOf<'text'>> = {
  accept(offered) {
    if (typeof offered !== 'string') return { ok: false, takes: 'a text' };
    return { ok: true, value: offered === '' ? null : offered };
  },
  check(value, field) {
    const typed = value as string;
    if (field.format === 'email' && !isEmail(typed)) {
      return { code: 'typeMismatch', says: 'This is not an e-mail address, such as name@example.org.' };
    }
    if (field.format === 'url' && !isAbsoluteUrl(typed)) {
      return { code: 'typeMismatch', says: 'This is not a full web address, such as https://example.org/page.' };
    }
    if (field.pattern !== undefined && !new RegExp(`^(?:${field.pattern})$`, 'u').test(typed)) {
      return { code: 'patternMismatch', says: field.patternHelp ?? 'This is not in the form asked for.' };
    }
    if (field.maxLength !== undefined && typed.length > field.maxLength) {
      return { code: 'tooLong', says: `At most ${field.maxLength} characters; these are ${typed.length}.` };
    }
    if (field.minLength !== undefined && typed.length < field.minLength) {
      return { code: 'tooShort', says: `At least ${field.minLength} characters; these are ${typed.length}.` };
    }
    return null;
  },
  type: () => 'string',
  text: (value) => String(value),
};
