/**
 * Values are plain JSON and the same everywhere: what a script reads, a scenario expects and a record
 * stores. This module compares and copies them; which of them a field accepts stands in `kinds/`.
 */
export type Value =
  string | number | boolean | null | readonly Value[] | { readonly [name: string]: Value };

/** Values by field name. */
export type Values = Record<string, Value>;

/** Whether a value is empty, of whatever kind its field is. */
export function isEmpty(value: Value | undefined): boolean {
  return value === null || value === undefined || (Array.isArray(value) && value.length === 0);
}

/** Deep equality on plain JSON; the order of an object's keys does not count. */
export function equal(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((item, i) => equal(item, b[i]));
  }
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  const names = Object.keys(left);
  return (
    names.length === Object.keys(right).length &&
    names.every((name) => name in right && equal(left[name], right[name]))
  );
}

/** Whether it has members by name, as opposed to a list. */
export const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Freezes a value and everything in it; gives the same value back. */
export function deepFreeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const item of Object.values(value)) deepFreeze(item);
  }
  return value;
}

/** How a value reads in a sentence: texts in quotes, empty as "nothing". Long texts are cut. */
export function inWords(value: unknown): string {
  if (value === null || value === undefined) return 'nothing';
  if (typeof value === 'string')
    return JSON.stringify(value.length > 60 ? `${value.slice(0, 57)}…` : value);
  if (typeof value === 'boolean') return value ? 'yes (true)' : 'no (false)';
  if (typeof value === 'number') return String(value);
  if (typeof value === 'function') return 'a function';
  if (Array.isArray(value))
    return value.length === 0 ? 'an empty list' : `a list of ${value.length}`;
  return 'an object';
}
