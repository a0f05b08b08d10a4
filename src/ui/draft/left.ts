/** What an earlier visit left unsaved, where it is worth offering. Apart from `kept.ts`, which the page for filling in loads. */
import type { ZodType } from 'zod';
import { equal, type Value } from '@/core/form/value';
import { leftUnder, type Left } from './kept';

/**
 * What was left under a key; null where it says the same as what is saved now, or is no such thing any more. The schema is
 * fetched only where something was left; without one what is half typed, which no schema takes yet, is offered too.
 */
export async function leftBeside<T>(
  key: string,
  saved: T,
  schema: (() => Promise<ZodType<T & {}>>) | null = null,
): Promise<Left<T> | null> {
  const left = await leftUnder<T>(key);
  if (left === null || equal(left.value as Value, saved as Value)) return null;
  if (schema === null) return left;
  const read = (await schema()).safeParse(left.value);
  return read.success ? { ...left, value: read.data } : null;
}
