/**
 * The kinds of field, one entry each. A new kind is its schema in `definition.ts`, its entry here, and its input in
 * `ui/fields`. docs/architecture.md walks through it.
 */
import type { Field, FieldKind, FieldOf } from '../definition';
import { date } from './date';
import { choice, reference } from './keys';
import type { Accepted, Fault, Kind, Surroundings } from './kind';
import { money, number } from './number';
import { text } from './text';
import { yesNo } from './yes-no';
import type { Value } from '../value';

const kinds: { [K in FieldKind]: Kind<FieldOf<K>> } = {
  text,
  number,
  money,
  date,
  yes_no: yesNo,
  choice,
  reference,
};

/** The kind of a field. */
export function kindOf(field: Field): Kind {
  // Each entry takes the field of its own kind; the table's type says so, a single lookup cannot.
  return kinds[field.kind] as unknown as Kind;
}

/** Reads an offered value for a field: undefined, null and the empty text are empty (semantics 2, 3). */
export function accept(offered: unknown, field: Field, around: Surroundings): Accepted {
  if (offered === undefined || offered === null) return { ok: true, value: null };
  return kindOf(field).accept(offered, field, around);
}

/**
 * The first constraint that a value breaks, required among them: `valueMissing` for an empty value of a required
 * field, and nothing else is asked of an empty one (HTML, "constraint validation").
 */
export function faultOf(value: Value, field: Field, required: boolean): Fault | null {
  if (value === null) return required ? { code: 'valueMissing', says: 'This has to be filled in.' } : null;
  return kindOf(field).check(value, field);
}

/** How a value reads to people; empty reads as nothing at all. */
export function textOf(value: Value, field: Field, around: Surroundings): string {
  return value === null ? '' : kindOf(field).text(value, field, around);
}

export type { Accepted, Fault, Kind, Surroundings } from './kind';
