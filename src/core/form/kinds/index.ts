/**
 * Reading and checking values of each kind, one entry each. What else a kind is stands in `../traits.ts`;
 * docs/architecture.md walks through a new one.
 */
import type { Field, FieldKind, FieldOf } from '../definition';
import { date } from './date';
import { choice, choices, reference } from './keys';
import { file } from './file';
import type { ReadingContext } from '../reading';
import { emptyOf } from '../traits';
import type { Accepted, Fault, Fits, Kind } from './kind';
import { money, number } from './number';
import { rowsKind } from './rows';
import { text } from './text';
import { datetime, time } from './time';
import { yesNo } from './yes-no';
import { isEmpty, type Value } from '../value';

const kinds: { [K in FieldKind]: Kind<FieldOf<K>> } = {
  text,
  number,
  money,
  date,
  time,
  datetime,
  yes_no: yesNo,
  choice,
  choices,
  reference,
  file,
  rows: rowsKind(accept),
};

/** The kind of a field. */
export function kindOf(field: Field): Kind {
  // Each entry takes the field of its own kind; the table's type says so, a single lookup cannot.
  return kinds[field.kind] as unknown as Kind;
}

/** Reads an offered value for a field: undefined, null and the empty text are empty. */
export function accept(offered: unknown, field: Field, around: ReadingContext): Accepted {
  if (offered === undefined || offered === null) return { ok: true, value: emptyOf(field) };
  return kindOf(field).accept(offered, field, around);
}

/**
 * The first constraint that a value breaks, required among them: `valueMissing` for an empty value of a required
 * field, and nothing else is asked of an empty one (HTML, "constraint validation") but how many rows there are.
 * Patterns may backtrack without an end, so `fits` runs them where that can be stopped.
 */
export function faultOf(value: Value, field: Field, required: boolean, fits: Fits): Fault | null {
  if (isEmpty(value)) {
    if (required)
      return {
        code: 'valueMissing',
        says: field.kind === 'rows' ? 'At least one row is needed.' : 'This has to be filled in.',
      };
    if (field.kind !== 'rows') return null;
  }
  return kindOf(field).check(value, field, fits);
}

export type { Accepted, Fault, Fits, Kind } from './kind';
export { readRow } from './rows';
export type { FileValue } from './file';
