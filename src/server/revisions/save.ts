/**
 * Saving what has revisions, in one way for everything: what somebody saved meanwhile is never overwritten, a revision
 * number is never given twice, and what was removed can come back.
 */
import { sql } from 'drizzle-orm';
import { equal, type Value } from '../../core/form/value';
import type { Database } from '../database';

export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

export interface Now<T> {
  content: T;
  revision: number;
}

export type Saved<T> = { saved: true; revision: number } | { saved: false; theirs: { content: T | null; revision: number } };

/** Where something with revisions stands. */
export interface Shelf<T> {
  /** Tells it from everything else, for the lock. */
  lock: string;
  /** As it stands; null when there is none. */
  read(tx: Transaction): Promise<Now<T> | null>;
  /** The last number given, also to what was removed since; 0 when there never was one. */
  lastNumber(tx: Transaction): Promise<number>;
  /** Puts a content as this revision; null removes it. */
  put(tx: Transaction, content: T | null, revision: number): Promise<void>;
}

/**
 * Saves a content, provided that what it was made from, revision `from`, is still the last one; else nothing is saved
 * and the other one is given. `from` 0 makes something new. A content that is there already is saved as it is.
 */
export async function saveRevised<T>(tx: Transaction, shelf: Shelf<T>, content: T, from: number): Promise<Saved<T>> {
  const now = await locked(tx, shelf);
  if (now !== null && equal(now.content as Value, content as Value)) return { saved: true, revision: now.revision };
  if ((now?.revision ?? 0) !== from) return otherOne(now);
  return put(tx, shelf, content, now);
}

/** Removes what stands at revision `from`; its revisions stay. */
export async function removeRevised<T>(tx: Transaction, shelf: Shelf<T>, from: number): Promise<Saved<T>> {
  const now = await locked(tx, shelf);
  if (now === null || now.revision !== from) return otherOne(now);
  return put(tx, shelf, null, now);
}

/** Waits until nobody else saves the same, new things included, and reads it. */
async function locked<T>(tx: Transaction, shelf: Shelf<T>): Promise<Now<T> | null> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${shelf.lock}, 0))`);
  return shelf.read(tx);
}

async function put<T>(tx: Transaction, shelf: Shelf<T>, content: T | null, now: Now<T> | null): Promise<Saved<T>> {
  // What is there has the last number of all.
  const revision = (now?.revision ?? (await shelf.lastNumber(tx))) + 1;
  await shelf.put(tx, content, revision);
  return { saved: true, revision };
}

function otherOne<T>(now: Now<T> | null): Saved<T> {
  return { saved: false, theirs: { content: now?.content ?? null, revision: now?.revision ?? 0 } };
}
