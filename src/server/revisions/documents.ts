/** The documents of a workspace: definitions, behaviours, scenarios, tables, services and its head, each with its revisions. */
import { REVISIONS_SHOWN } from '../../core/limits';
import DataLoader from 'dataloader';
import { and, asc, desc, eq, isNotNull, lt, sql, type SQL } from 'drizzle-orm';
import * as z from 'zod';
import { HEAD_SHAPE, type Head } from '../../core/workspace/head';
import { FormSchema, type Form } from '../../core/form/definition';
import { ServiceSchema, type Service } from '../../core/form/service';
import { TableSchema, type Table } from '../../core/form/table';
import { ScenarioSchema, type Scenario } from '../../core/scenario/definition';
import { deepFreeze } from '../../core/form/value';
import { ask, database, type Transaction } from '../database/database';
import * as schema from '../database/schema';
import { perWorkspace } from '../database/current-workspace';
import { saveRevised, type Saved } from './save';

export type { Head };

/** What each kind of document holds. */
export interface Contents {
  head: Head;
  form: Form;
  behaviour: string;
  scenario: Scenario;
  table: Table;
  service: Service;
  /** A shared module or a behaviour for several forms, by its path in the workspace's folder. */
  shared: string;
}
export type Kind = keyof Contents;

const SCHEMAS: { readonly [K in Kind]: z.ZodType<Contents[K]> } = {
  head: z.strictObject(HEAD_SHAPE),
  form: FormSchema,
  behaviour: z.string(),
  scenario: ScenarioSchema,
  table: TableSchema,
  service: ServiceSchema,
  shared: z.string(),
};

/** Which document. `form` is empty for what all forms share. */
export interface Key<K extends Kind = Kind> {
  kind: K;
  form?: string;
  name: string;
}

export interface Document<K extends Kind> {
  name: string;
  content: Contents[K];
  revision: number;
}

/** Contents by document and revision, which never change: most requests find everything as the last one left it. */
const contents = perWorkspace('contents by revision', () => new Map<string, unknown>());
const MOST_READ = 5000;

function contentOf<K extends Kind>(
  kind: K,
  row: { id: number; revision: number; content: unknown },
): Contents[K] {
  const read = contents();
  const key = `${row.id}:${row.revision}`;
  const known = read.get(key);
  if (known !== undefined) return known as Contents[K];
  const content = deepFreeze(SCHEMAS[kind].parse(row.content));
  if (read.size >= MOST_READ) read.clear();
  read.set(key, content);
  return content;
}

const { document, revision } = schema;

function there({ kind, form = '', name }: Key): SQL | undefined {
  return and(
    eq(document.kind, kind),
    eq(document.form, form),
    eq(document.name, name),
    isNotNull(document.content),
  );
}

const DocumentRow = z.object({
  id: z.int(),
  kind: z.string(),
  form: z.string(),
  name: z.string(),
  content: z.unknown(),
  revision: z.int(),
});
type DocumentRow = z.infer<typeof DocumentRow>;

const keyOf = ({ kind, form = '', name }: { kind: string; form?: string; name: string }) =>
  `${kind}\n${form}\n${name}`;

/**
 * Everything that is asked for within one turn of the event loop is read at once, and once: with many people at work, most requests
 * read the same few documents. Each is read after it was asked for, so nobody gets what was there before.
 */
const reading = perWorkspace(
  'documents that are being read',
  () =>
    new DataLoader<Key, DocumentRow | null, string>(readAtOnce, {
      cache: false,
      batchScheduleFn: (read) => void setImmediate(read),
      maxBatchSize: 500,
    }),
);

async function readAtOnce(keys: readonly Key[]): Promise<(DocumentRow | null)[]> {
  const wanted = [...new Map(keys.map((key) => [keyOf(key), key])).values()];
  const rows = await ask(
    'documents',
    'select d.* from unnest($1::text[], $2::text[], $3::text[]) as wanted (kind, form, name) join document d using (kind, form, name) where d.content is not null',
    [
      wanted.map(({ kind }) => kind),
      wanted.map(({ form = '' }) => form),
      wanted.map(({ name }) => name),
    ],
  );
  const found = new Map(
    z
      .array(DocumentRow)
      .parse(rows)
      .map((row) => [keyOf(row), row]),
  );
  return keys.map((key) => found.get(keyOf(key)) ?? null);
}

export async function readDocument<K extends Kind>(key: Key<K>): Promise<Document<K> | null> {
  const row = await reading().load(key);
  return row === null
    ? null
    : { name: row.name, content: contentOf(key.kind, row), revision: row.revision };
}

/** All documents of a kind, of one form or of all that share it, by name. */
export async function readDocuments<K extends Kind>(kind: K, form = ''): Promise<Document<K>[]> {
  const rows = await database()
    .select()
    .from(document)
    .where(and(eq(document.kind, kind), eq(document.form, form), isNotNull(document.content)))
    .orderBy(asc(document.name));
  return rows.map((row) => ({
    name: row.name,
    content: contentOf(kind, row),
    revision: row.revision,
  }));
}

/** All documents of a kind whatever form they belong to, in the order of the forms. */
export async function readAllDocuments<K extends Kind>(
  kind: K,
): Promise<(Document<K> & { form: string })[]> {
  const rows = await database()
    .select()
    .from(document)
    .where(and(eq(document.kind, kind), isNotNull(document.content)))
    .orderBy(asc(document.form), asc(document.name));
  return rows.map((row) => ({
    form: row.form,
    name: row.name,
    content: contentOf(kind, row),
    revision: row.revision,
  }));
}

/** Whether there is such a document, without reading it. */
export async function isThere(key: Key): Promise<boolean> {
  const [row] = await database().select({ id: document.id }).from(document).where(there(key));
  return row !== undefined;
}

async function save<K extends Kind>(
  { kind, form = '', name }: Key<K>,
  content: Contents[K] | null,
  from: number,
  by: string | null,
  within?: Transaction,
): Promise<Saved<Contents[K]>> {
  const {
    saved,
    revision,
    content: other,
    document: id,
  } = await saveRevised({ kind, form, name }, content, from, by, within);
  if (saved) return { saved, revision };
  return {
    saved,
    theirs: {
      content: other === null ? null : contentOf(kind, { id: id!, revision, content: other }),
      revision,
    },
  };
}

/** Saves a document made from revision `from`, 0 for a new one; gives the other one when somebody was faster. */
export function saveDocument<K extends Kind>(
  key: Key<K>,
  content: Contents[K],
  from: number,
  by: string | null,
  within?: Transaction,
): Promise<Saved<Contents[K]>> {
  return save(key, content, from, by, within);
}

/** Removes a document at revision `from`; its revisions stay, and saving one of its name goes on with them. */
export function removeDocument<K extends Kind>(
  key: Key<K>,
  from: number,
  by: string | null,
): Promise<Saved<Contents[K]>> {
  return save(key, null, from, by);
}

/** Gives documents of one kind and form other names, all at once, so that one may get the name another leaves. Their revisions go with them. */
export async function renameDocuments(
  tx: Transaction,
  kind: Kind,
  form: string,
  renames: readonly { from: string; to: string }[],
): Promise<void> {
  const passing = (name: string) => `@${name}`;
  for (const { from, to } of renames)
    await tx
      .update(document)
      .set({ name: passing(to) })
      .where(there({ kind, form, name: from }));
  for (const { to } of renames)
    await tx
      .update(document)
      .set({ name: to })
      .where(there({ kind, form, name: passing(to) }));
}

export interface Revision<K extends Kind> {
  revision: number;
  /** Null where it was removed. */
  content: Contents[K] | null;
  savedBy: string | null;
  savedAt: string;
}

/** Contents a document has had, the newest first, before a number when one is given. */
export async function historyOf<K extends Kind>(
  key: Key<K>,
  before?: number,
): Promise<Revision<K>[]> {
  const { kind, form = '', name } = key;
  // The document of the name, else the one that had it and was removed last.
  const named = and(eq(document.kind, kind), eq(document.form, form), eq(document.name, name));
  const [last] = await database()
    .select({ id: document.id })
    .from(document)
    .where(named)
    .orderBy(sql`content is null`, desc(document.revision))
    .limit(1);
  if (last === undefined) return [];
  const { number, content, savedBy, savedAt } = revision;
  const rows = await database()
    .select({ number, content, savedBy, savedAt })
    .from(revision)
    .where(
      and(eq(revision.document, last.id), before === undefined ? undefined : lt(number, before)),
    )
    .orderBy(desc(number))
    .limit(REVISIONS_SHOWN);
  return rows.map((row) => ({
    revision: row.number,
    content:
      row.content === null
        ? null
        : contentOf(key.kind, { id: last.id, revision: row.number, content: row.content }),
    savedBy: row.savedBy,
    savedAt: row.savedAt.toISOString(),
  }));
}

const PastRow = DocumentRow.omit({ form: true });

/** What a form ran with at some moment; the form is null where there was none. */
export async function documentsAt(
  form: string,
  at: string,
): Promise<{
  form: Form | null;
  behaviours: Document<'behaviour'>[];
  shared: Document<'shared'>[];
  tables: Table[];
  services: Service[];
}> {
  const { rows } = await database().execute(sql`
    select d.id, d.kind, d.name, r.number as revision, r.content
    from document d, lateral (
      select number, content from revision where document = d.id and saved_at <= ${at}::timestamptz order by number desc limit 1
    ) as r
    where (d.form = ${form} and d.kind = 'behaviour' or d.form = '' and d.kind in ('table', 'service', 'shared')
      or d.kind = 'form' and d.name = ${form}) and r.content is not null and r.content <> 'null'::jsonb
    order by d.name, d.id`);
  const past = z.array(PastRow).parse(rows);
  const of = <K extends Kind>(kind: K): Document<K>[] =>
    past
      .filter((row) => row.kind === kind)
      .map((row) => ({
        name: row.name,
        content: contentOf(kind, row),
        revision: row.revision,
      }));
  const contentsOf = <K extends Kind>(kind: K) => of(kind).map(({ content }) => content);
  return {
    form: contentsOf('form').at(-1) ?? null,
    behaviours: of('behaviour'),
    shared: of('shared'),
    tables: contentsOf('table'),
    services: contentsOf('service'),
  };
}

/** Changes with every save of a document. */
export async function savedNow(): Promise<string> {
  const { rows } = await database().execute(
    sql`select concat(count(*), ' ', coalesce(sum(revision), 0)) as saved from document`,
  );
  return z.object({ saved: z.string() }).parse(rows[0]).saved;
}
