/**
 * Taking what a folder holds into the workspace at hand: what that would change, doing it in one go, and undoing it in
 * one go. Whatever somebody saves meanwhile is never written over.
 */
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import * as z from 'zod';
import { equal, type Value } from '../../core/form/value';
import { TAKINGS_SHOWN } from '../../core/limits';
import type { Saving } from '../../core/workspace/taking';
import type { Workspace } from '../../core/workspace/workspace';
import type { Change } from '../../core/workspace/taking';
import { database, transaction, type Transaction } from '../database/database';
import { Refusal } from '../http/refusal';
import { readSamples } from '../records/read';
import { saveMany, type Made, type SavedPlace } from '../revisions/save';
import * as schema from '../database/schema';
import { task } from '../machines/tasks';
import { readFolderOf } from './folder';

/** A folder as it came: a zip, or its files. */
export type Brought = { zip: Uint8Array } | { files: [path: string, text: string][] };

export interface Incoming {
  workspace: Workspace;
  /** The digests of what it was made from, where it says so. */
  base: [string, string][] | null;
}

/** What is in a folder that was brought. Throws a Refusal (422) that names what is wrong by file and line. */
export async function readBrought(brought: Brought): Promise<Incoming> {
  // A copy of its own memory, which goes to the thread.
  const read = await task(
    'unpack',
    'zip' in brought ? { bytes: new Uint8Array(brought.zip) } : brought,
  );
  if (!read.ok) throw new Refusal(422, read.errors.join('\n'));
  return read;
}

/** The workspace at hand, with those of its records that the folder holds as well. */
export async function readBeside({ forms }: Workspace, withRecords: boolean): Promise<Workspace> {
  const mine = await readFolderOf(false);
  if (!withRecords) return { ...mine, forms: mine.forms.map((one) => ({ ...one, records: [] })) };
  return {
    ...mine,
    forms: await Promise.all(
      mine.forms.map(async (one) => {
        const ids = new Set(
          forms.find(({ form }) => form.name === one.form.name)?.records.map(({ id }) => id),
        );
        const samples = ids.size === 0 ? [] : await readSamples(one.form.name, [...ids]);
        return { ...one, records: samples.filter(({ id }) => ids.has(id)) };
      }),
    ),
  };
}

const withoutRecords = (workspace: Workspace): Workspace => ({
  ...workspace,
  forms: workspace.forms.map((one) => ({ ...one, records: [] })),
});

/** What taking it would change. Records only when they are asked for. */
export async function planTaking(
  { workspace, base }: Incoming,
  withRecords: boolean,
): Promise<Change[]> {
  return task('changes', {
    mine: await readBeside(workspace, withRecords),
    incoming: withRecords ? workspace : withoutRecords(workspace),
    base,
  });
}

/** Takes some of it, all or none. Throws a Refusal: 422 where the two together would be no workspace, 409 when somebody saves meanwhile. */
export async function take(
  { workspace: incoming }: Incoming,
  units: readonly string[],
  what: string,
  by: string,
): Promise<{ id: number | null; saved: number }> {
  const before = await revisionsNow();
  const read = await task('savings', {
    mine: await readBeside(incoming, true),
    incoming,
    units: [...units],
  });
  if (!read.ok) throw new Refusal(422, read.errors.join('\n'));
  return transaction((tx) => saveAll(tx, read.savings, before, what, by));
}

/** A document or a record, with what it held before; `after` is the revision that it was taken as. */
const TakenWorkspace = z.object({
  kind: z.string(),
  form: z.string(),
  name: z.string(),
  before: z.unknown(),
  after: z.int(),
});
type TakenWorkspace = z.infer<typeof TakenWorkspace>;

interface Held {
  revision: number;
  content: unknown;
}
const placeKey = (kind: string, form: string, name: string) => `${kind}\n${form}\n${name}`;

const DocumentRow = z.object({
  kind: z.string(),
  form: z.string(),
  name: z.string(),
  revision: z.int(),
});

/** The revision of every document that is there. */
export async function revisionsNow(): Promise<Map<string, number>> {
  const { rows } = await database().execute(
    sql`select kind, form, name, revision from document where content is not null`,
  );
  return new Map(
    z
      .array(DocumentRow)
      .parse(rows)
      .map(({ kind, form, name, revision }) => [placeKey(kind, form, name), revision]),
  );
}

/** Saves documents and records in one statement, and keeps what stood there. */
export async function saveAll(
  tx: Transaction,
  savings: readonly Saving[],
  revisions: ReadonlyMap<string, number>,
  what: string,
  by: string | null,
): Promise<{ id: number | null; saved: number }> {
  const places = savings.flatMap((saving) =>
    saving.kind === 'records'
      ? (saving.content ?? []).map(({ id, values }) => ({
          kind: 'record',
          form: saving.form as string,
          name: id,
          content: values as unknown,
        }))
      : [
          {
            kind: saving.kind as string,
            form: saving.form as string,
            name: saving.name as string,
            content: saving.content as unknown,
          },
        ],
  );
  const held = await heldNow(tx, places);
  const changed = places.filter(
    (place) =>
      !equal(
        (held.get(placeKey(place.kind, place.form, place.name))?.content ?? null) as Value,
        place.content as Value,
      ),
  );
  // Of a document the revision that was looked at; a record is as it is now, since its values alone are taken.
  const from = ({ kind, form, name }: (typeof places)[number]) =>
    (kind === 'record'
      ? held.get(placeKey(kind, form, name))?.revision
      : revisions.get(placeKey(kind, form, name))) ?? 0;
  const saved = await savedOrRefused(
    tx,
    changed.map((place) => ({ ...place, from: from(place) })),
    by,
  );
  if (saved.length === 0) return { id: null, saved: 0 };
  const changes = saved.map(({ kind, form, name, revision }): TakenWorkspace => ({
    kind,
    form,
    name,
    before: held.get(placeKey(kind, form, name))?.content ?? null,
    after: revision,
  }));
  const [row] = await tx
    .insert(schema.taking)
    .values({ what, savedBy: by, changes })
    .returning({ id: schema.taking.id });
  return { id: row!.id, saved: saved.length };
}

const HeldRow = DocumentRow.extend({ content: z.unknown() });

/** What stands at these places now. */
async function heldNow(
  tx: Transaction,
  places: readonly { kind: string; form: string; name: string }[],
): Promise<Map<string, Held>> {
  const wanted = JSON.stringify(places.map(({ kind, form, name }) => ({ kind, form, name })));
  const { rows } = await tx.execute(sql`
    with wanted as (select * from jsonb_to_recordset(${wanted}::jsonb) as w (kind text, form text, name text))
    select d.kind, d.form, d.name, d.revision, d.content from wanted join document d using (kind, form, name) where d.content is not null
    union all
    select 'record', r.form, r.id, r.revision, r."values" from wanted w join record r on w.kind = 'record' and r.form = w.form and r.id = w.name`);
  return new Map(
    z
      .array(HeldRow)
      .parse(rows)
      .map(({ kind, form, name, revision, content }) => [
        placeKey(kind, form, name),
        { revision, content },
      ]),
  );
}

/** Saves each from the revision it was made from. Throws a Refusal (409) that names what somebody else changed. */
async function savedOrRefused(
  tx: Transaction,
  places: readonly Made[],
  by: string | null,
): Promise<SavedPlace[]> {
  const saved = await saveMany(tx, places, by);
  const other = saved.filter((row) => !row.saved);
  if (other.length > 0)
    throw new Refusal(
      409,
      `Somebody changed ${named(other)} meanwhile. Nothing was taken: look at what would change again.`,
    );
  return saved;
}

const named = (places: readonly { form: string; name: string }[]) =>
  `${places
    .slice(0, 5)
    .map(({ form, name }) => (form === '' ? name : `${form}/${name}`))
    .join(', ')}${places.length > 5 ? ' and others' : ''}`;

export interface TakingRow {
  id: number;
  what: string;
  by: string | null;
  at: string;
  count: number;
}

/** What was taken last and can be undone, the newest first. */
export async function readTakings(): Promise<TakingRow[]> {
  const { taking } = schema;
  const rows = await database()
    .select({
      id: taking.id,
      what: taking.what,
      by: taking.savedBy,
      at: taking.savedAt,
      count: sql<number>`jsonb_array_length(${taking.changes})`,
    })
    .from(taking)
    .where(isNull(taking.undoneAt))
    .orderBy(desc(taking.id))
    .limit(TAKINGS_SHOWN);
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** Puts back what stood before something was taken, all of it. Throws a Refusal (409) that names what was changed since. */
export async function undoTaking(id: number, by: string): Promise<void> {
  const { taking } = schema;
  await transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(taking)
      .where(and(eq(taking.id, id), isNull(taking.undoneAt)))
      .for('update');
    if (row === undefined) throw new Refusal(404, 'There is nothing of that to undo.');
    const changes = z.array(TakenWorkspace).parse(row.changes);
    const held = await heldNow(tx, changes);
    const since = changes.filter(
      ({ kind, form, name, after }) =>
        (held.get(placeKey(kind, form, name))?.revision ?? null) !== after &&
        // What was removed has no revision any more.
        held.has(placeKey(kind, form, name)),
    );
    if (since.length > 0)
      throw new Refusal(
        409,
        `${named(since)} ${since.length === 1 ? 'was' : 'were'} changed since. Undo that first, or bring back single revisions from the history.`,
      );
    await savedOrRefused(
      tx,
      // What was new and is gone again is as it was.
      changes
        .filter(
          ({ kind, form, name, before }) => before != null || held.has(placeKey(kind, form, name)),
        )
        .map(({ kind, form, name, before }) => ({
          kind,
          form,
          name,
          content: before ?? null,
          from: held.get(placeKey(kind, form, name))?.revision ?? 0,
        })),
      by,
    );
    await tx.update(taking).set({ undoneAt: new Date() }).where(eq(taking.id, id));
  });
}
