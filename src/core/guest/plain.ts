/** Copies whatever a script hands over into plain JSON of bounded size: for the log, and for what services answer. */
import type { Value } from '../form/value';

/** How objects read that stand for something in a script, such as a part; null for all others. */
export type ReadsAs = (value: object) => string | null;

export const MOST_ITEMS = 50;
export const MOST_DEPTH = 4;
const MOST_TEXT = 500;

export function plain(value: unknown, readsAs: ReadsAs, depth = 0): Value {
  switch (typeof value) {
    case 'string':
      return value.length > MOST_TEXT ? `${value.slice(0, MOST_TEXT)}…` : value;
    case 'boolean':
      return value;
    case 'number':
      return Number.isFinite(value) ? value : String(value);
    case 'object':
      return value === null ? null : plainObject(value, readsAs, depth);
    case 'function':
      return 'a function';
    case 'undefined':
      return null;
    default:
      return String(value);
  }
}

function plainObject(value: object, readsAs: ReadsAs, depth: number): Value {
  const name = readsAs(value);
  if (name !== null) return name;
  if (depth >= MOST_DEPTH) return '…';
  try {
    if (value instanceof Error) return value.message;
    const tag = Object.prototype.toString.call(value);
    if (tag.startsWith('[object Temporal.') || value instanceof Date)
      return String((value as { toJSON(): unknown }).toJSON());
    if (Array.isArray(value)) {
      const items = value.slice(0, MOST_ITEMS).map((item) => plain(item, readsAs, depth + 1));
      return value.length > MOST_ITEMS ? [...items, `… ${value.length - MOST_ITEMS} more`] : items;
    }
    const entries = value instanceof Map ? [...value] : Object.entries(value);
    return Object.fromEntries(
      entries
        .slice(0, MOST_ITEMS)
        .map(([key, item]) => [String(key), plain(item, readsAs, depth + 1)]),
    );
  } catch {
    // A getter of the script's own threw; that is no reason to fail the log line.
    return 'an object';
  }
}
