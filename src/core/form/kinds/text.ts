/** Text of one or many lines, kept as typed; only the empty text becomes empty. */
import type { FieldOf, TextFormat } from '../definition';
import { checks, fitsMask } from '../checks';
import type { Kind } from './kind';

const FORMATS: Readonly<Record<TextFormat, { fits: (text: string) => boolean; says: string }>> = {
  email: { fits: checks.email, says: 'This is not an e-mail address, such as name@example.org.' },
  url: {
    // The valid absolute URLs of HTML, by the WHATWG URL standard.
    fits: (typed) => URL.canParse(typed),
    says: 'This is not a full web address, such as https://example.org/page.',
  },
  phone: {
    fits: checks.phone,
    says: 'This is not an international number, such as +999 12 345 678.',
  },
  iban: {
    fits: checks.iban,
    says: 'This is not an IBAN: a letter or digit of it is wrong or missing.',
  },
  imo: {
    fits: checks.imo,
    says: 'This is not an IMO number: seven digits, the last a check digit.',
  },
  container: {
    fits: checks.container,
    says: 'This is not a container number: four letters, six digits and a check digit.',
  },
};

export const text: Kind<FieldOf<'text'>> = {
  accept(offered) {
    if (typeof offered !== 'string') return { ok: false, takes: 'a text' };
    return { ok: true, value: offered === '' ? null : offered };
  },
  check(value, field, fits) {
    const typed = value as string;
    if (field.format !== undefined && !FORMATS[field.format].fits(typed)) {
      return { code: 'typeMismatch', says: FORMATS[field.format].says };
    }
    if (field.mask !== undefined && !fitsMask(typed, field.mask)) {
      return {
        code: 'patternMismatch',
        says:
          field.patternHelp ??
          `This is spelled ${field.mask}: 9 stands for a digit, A for a capital letter, * for either.`,
      };
    }
    const spelled = field.pattern === undefined || fits(field.pattern, typed);
    if (spelled === null)
      return {
        code: 'patternMismatch',
        says: `The pattern of ${field.label} takes too long to check this text.`,
      };
    if (!spelled)
      return {
        code: 'patternMismatch',
        says: field.patternHelp ?? 'This is not in the form asked for.',
      };
    if (field.maxLength !== undefined && typed.length > field.maxLength) {
      return {
        code: 'tooLong',
        says: `At most ${field.maxLength} characters; these are ${typed.length}.`,
      };
    }
    if (field.minLength !== undefined && typed.length < field.minLength) {
      return {
        code: 'tooShort',
        says: `At least ${field.minLength} characters; these are ${typed.length}.`,
      };
    }
    return null;
  },
  type: () => 'string',
};
