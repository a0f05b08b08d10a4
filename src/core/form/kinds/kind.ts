/** What every kind of field says about its values. One entry of the table in `index.ts` is one kind. */
import type { Field } from '../definition';
import type { ReadingContext } from '../reading';
import type { Value } from '../value';

/** The answer to an offered value: what is stored, or what the kind takes instead. */
export type Accepted = { ok: true; value: Value } | { ok: false; takes: string; help?: string };

/**
 * A broken constraint. The codes are those of HTML's ValidityState (https://html.spec.whatwg.org/#validitystate), so
 * that they can be compared with a browser's own; `tooFew` and `tooMany` count what HTML has no word for.
 */
export interface Fault {
  code:
    | 'valueMissing'
    | 'typeMismatch'
    | 'patternMismatch'
    | 'tooLong'
    | 'tooShort'
    | 'rangeUnderflow'
    | 'rangeOverflow'
    | 'stepMismatch'
    | 'tooFew'
    | 'tooMany';
  says: string;
}

/** Whether a text as a whole is spelled as a pattern says (`u` regular expression); null when finding out took too long. */
export type Fits = (pattern: string, text: string) => boolean | null;

export interface Kind<F extends Field = Field> {
  /** Reads an offered value that is not empty. Never throws. */
  accept(offered: unknown, field: F, around: ReadingContext): Accepted;
  /** The first constraint that a value which is not empty breaks, in the order a browser reports them. */
  check(value: Value, field: F, fits: Fits): Fault | null;
  /** The TypeScript type of the value when it is not empty, for the typings of scripts. */
  type(field: F): string;
}
