/**
 * Copies a value of a script into plain JSON without running anything of the script's: no getters, no traps of proxies,
 * no iterators. What is told about a run must not change it.
 */
import type { Value } from '../form/value';
import { MOST_DEPTH, MOST_ITEMS, plain, type ReadsAs } from './plain';

/** Which objects are proxies; the language itself does not tell. */
export type IsProxy = (value: object) => boolean;

/** What has to be known of objects before they are looked into. */
export interface Sight {
  readsAs: ReadsAs;
  isProxy: IsProxy;
  temporal: () => object | null;
}

/** What a property reads as that a getter would have to give. */
const COMPUTED = '…';

export function glimpse(value: unknown, sight: Sight, depth = 0): Value {
  const { readsAs, isProxy } = sight;
  if (typeof value !== 'object' || value === null) return plain(value, readsAs);
  const name = readsAs(value);
  if (name !== null) return name;
  if (depth >= MOST_DEPTH) return '…';
  if (isProxy(value)) return 'an object';
  const next = (item: unknown): Value => glimpse(item, sight, depth + 1);
  if (value instanceof Error) return next(dataOf(value, 'message') ?? 'an error');
  const text = textOf(value, sight);
  if (text !== null) return text;
  if (Array.isArray(value)) {
    const items: Value[] = [];
    for (let i = 0; i < value.length && i < MOST_ITEMS; i++) items.push(next(dataOf(value, i)));
    return value.length > MOST_ITEMS ? [...items, `… ${value.length - MOST_ITEMS} more`] : items;
  }
  const entries: [string, Value][] = [];
  const add = (key: unknown, item: unknown): void => {
    if (entries.length < MOST_ITEMS)
      entries.push([typeof key === 'object' ? 'an object' : String(key), next(item)]);
  };
  if (value instanceof Map)
    Map.prototype.forEach.call(value, (item: unknown, key: unknown) => add(key, item));
  else
    for (const key of Object.keys(value)) {
      if (entries.length >= MOST_ITEMS) break;
      add(key, dataOf(value, key));
    }
  return Object.fromEntries(entries);
}

/** The value of an own property; a word for one that a getter gives. */
function dataOf(value: object, key: string | number): unknown {
  const property = Object.getOwnPropertyDescriptor(value, key);
  return property === undefined || 'value' in property ? property?.value : COMPUTED;
}

/** Dates and objects of `Temporal` as their texts; null for anything else. */
function textOf(value: object, { temporal }: Sight): string | null {
  if (value instanceof Date) {
    const time = Date.prototype.getTime.call(value);
    return Number.isNaN(time) ? 'Invalid Date' : Date.prototype.toISOString.call(value);
  }
  const made = Object.getPrototypeOf(value) as object | null;
  const tag = made === null ? undefined : dataOf(made, Symbol.toStringTag as never);
  if (typeof tag !== 'string' || !tag.startsWith('Temporal.')) return null;
  // What only calls itself so is not asked.
  const known = temporal() as Record<string, { prototype: object } | undefined> | null;
  const ours = known?.[tag.slice('Temporal.'.length)]?.prototype as
    { toJSON(): unknown } | undefined;
  return ours === made ? String(ours!.toJSON.call(value)) : null;
}
