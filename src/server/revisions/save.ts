/**
 * Saving what has revisions, in one way for everything: what somebody saved meanwhile is never overwritten, a revision
 * number is never given twice, and what was removed can come back. The rules are in the database's function `tavro_save`
 * (drizzle/0004_saving.sql), so that saving is one statement.
 */
import { sql } from 'drizzle-orm';
import * as z from 'zod';
import { atOnce, database, type Database, type Transaction } from '../database/database';

/** What is saved: a record of a form, or a document of another kind. `form` is empty for what all forms share. */
export interface RevisedThing {
  kind: string;
  form: string;
  name: string;
}

export type Saved<T> =
  | { saved: true; revision: number }
  | { saved: false; theirs: { content: T | null; revision: number } };

const SaveReply = z.object({
  saved: z.boolean(),
  revision: z.int(),
  content: z.unknown(),
  document: z.int().nullable(),
});
type SaveReply = z.infer<typeof SaveReply>;

/**
 * Saves a content, provided that what it was made from, revision `from`, is still the last one; else nothing is saved
 * and the other one is given. `from` 0 makes something new, and null as content removes what is there; its revisions
 * stay. A content that is there already is saved as it is. Within a transaction, or as one of its own, which is done
 * again when the connection breaks.
 */
export async function saveRevised(
  { kind, form, name }: RevisedThing,
  content: unknown,
  from: number,
  by: string | null,
  within?: Transaction,
): Promise<SaveReply> {
  const written = content === null ? null : JSON.stringify(content);
  const save = (on: Pick<Database, 'execute'>) =>
    on.execute(
      sql`select * from tavro_save(${kind}, ${form}, ${name}, ${written}, ${from}, ${by}, null)`,
    );
  const { rows } = within === undefined ? await atOnce(() => save(database())) : await save(within);
  return SaveReply.parse(rows[0]);
}

/** What is saved at a place, made from revision `from`. */
export interface Made extends RevisedThing {
  content: unknown;
  from: number;
}

const SavedPlace = z.object({
  kind: z.string(),
  form: z.string(),
  name: z.string(),
  saved: z.boolean(),
  revision: z.int(),
});
export type SavedPlace = z.infer<typeof SavedPlace>;

/** Saves many at once, each as `saveRevised` does, in one statement. Gives the result of each; null as content removes. */
export async function saveMany(
  within: Transaction,
  made: readonly Made[],
  by: string | null,
): Promise<SavedPlace[]> {
  if (made.length === 0) return [];
  const { rows } = await within.execute(sql`
    select w.kind, w.form, w.name, s.saved, s.revision
    from jsonb_to_recordset(${JSON.stringify(made)}::jsonb) as w (kind text, form text, name text, content jsonb, "from" integer),
      lateral tavro_save(w.kind, w.form, w.name, nullif(w.content, 'null'::jsonb), w."from", ${by}, null) as s`);
  return z.array(SavedPlace).parse(rows);
}
