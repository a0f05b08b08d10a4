/** Clearing away what nobody will come back for: forms handed out long ago and never sent, with the files chosen for them. */
import { and, inArray, isNull, lt } from 'drizzle-orm';
import type { Database } from './database';
import * as schema from './schema';

/** Half-filled forms are kept this long, in milliseconds: thirty days. */
const KEPT = 30 * 24 * 60 * 60 * 1000;

/** Removes what was handed out before `now` less thirty days and never saved. How many were removed. */
export async function tidyFillings(database: Database, now: number): Promise<number> {
  const { filling, fileContent } = schema;
  const old = await database.select({ id: filling.id }).from(filling).where(and(isNull(filling.savedAs), lt(filling.clock, now - KEPT)));
  const ids = old.map(({ id }) => id);
  if (ids.length === 0) return 0;
  await database.delete(fileContent).where(inArray(fileContent.filling, ids));
  await database.delete(filling).where(inArray(filling.id, ids));
  return ids.length;
}
