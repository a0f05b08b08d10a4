/** Clearing away what nobody will come back for: filling-ins begun long ago and never sent, with the files chosen for them. */
import { HALF_FILLED_KEPT } from '../../core/limits';
import { sql } from 'drizzle-orm';
import type { Database } from '../database/database';

/** Removed at once; so many take less than a second. */
const AT_ONCE = 5000;

/** Removes what was begun before `now` less thirty days and never saved. How many were removed. */
export async function tidyFillings(database: Database, now: number): Promise<number> {
  let removed = 0;
  for (;;) {
    const { rows } = await database.execute(sql`
      with old as (select id from filling where saved_as is null and clock < ${now - HALF_FILLED_KEPT} limit ${AT_ONCE}),
        files as (delete from file_content where filling in (select id from old))
      delete from filling where id in (select id from old) returning 1`);
    removed += rows.length;
    if (rows.length < AT_ONCE) return removed;
  }
}
