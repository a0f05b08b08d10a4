/** Reading records one by one or a bounded number at a time. No query here grows with how many a form has. */
import { CHILD_RECORDS, RECORDS_COUNTED, RECORDS_ON_BENCH } from '../../core/limits';
import { and, asc, desc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Form } from '../../core/form/definition';
import type { Values } from '../../core/form/value';
import type { FormRecords, SampleRecord } from '../../core/scenario/opening';
import { ValuesSchema } from '../../core/session/schema';
import { database, type Database } from '../database/database';
import { readDocument } from '../revisions/documents';
import * as schema from '../database/schema';
import { fieldIs } from './columns';

const { record, recordRevision } = schema;

export interface StoredRecord {
  id: string;
  values: Values;
  revision: number;
  release: number | null;
  savedBy: string;
  savedAt: string;
}

/** What is read of a record; not the words it is searched by. */
export const COLUMNS = {
  id: record.id,
  values: record.values,
  revision: record.revision,
  release: record.release,
  savedBy: record.savedBy,
  savedAt: record.savedAt,
  place: record.place,
};

export function asRecord(row: {
  id: string;
  values: unknown;
  revision: number;
  release: number | null;
  savedBy: string;
  savedAt: Date;
}): StoredRecord {
  const { id, revision, release, savedBy, savedAt } = row;
  return {
    id,
    values: ValuesSchema.parse(row.values),
    revision,
    release,
    savedBy,
    savedAt: savedAt.toISOString(),
  };
}

export async function readRecord(
  form: string,
  id: string,
  on: Pick<Database, 'select'> = database(),
): Promise<StoredRecord | null> {
  const [row] = await on
    .select(COLUMNS)
    .from(record)
    .where(and(eq(record.form, form), eq(record.id, id)));
  return row === undefined ? null : asRecord(row);
}

/** A record's values as they were saved under a revision; null when it never was. */
export async function readRecordAt(
  form: string,
  id: string,
  revision: number,
): Promise<Values | null> {
  const where = and(
    eq(recordRevision.form, form),
    eq(recordRevision.id, id),
    eq(recordRevision.number, revision),
  );
  const [row] = await database()
    .select({ values: recordRevision.values })
    .from(recordRevision)
    .where(where);
  return row?.values == null ? null : ValuesSchema.parse(row.values);
}

/** Counted up to a limit, since counting takes as long as there are records. */
export interface Count {
  count: number;
  /** There are more than were counted. */
  more: boolean;
}

export async function countRecords(
  form: string,
  where: SQL | undefined = undefined,
  most = RECORDS_COUNTED,
): Promise<Count> {
  const counted = database()
    .select({ one: sql`1` })
    .from(record)
    .where(and(eq(record.form, form), where))
    .limit(most + 1)
    .as('counted');
  const [row] = await database()
    .select({ count: sql<number>`count(*)::int` })
    .from(counted);
  return { count: Math.min(row!.count, most), more: row!.count > most };
}

export async function readSamples(form: string, ids: readonly string[]): Promise<SampleRecord[]> {
  const newest = await database()
    .select(COLUMNS)
    .from(record)
    .where(eq(record.form, form))
    .orderBy(asc(record.place), asc(record.id))
    .limit(RECORDS_ON_BENCH);
  const missing = [...new Set(ids)]
    .filter((id) => !newest.some((row) => row.id === id))
    .slice(0, 500);
  const more =
    missing.length === 0
      ? []
      : await database()
          .select(COLUMNS)
          .from(record)
          .where(and(eq(record.form, form), inArray(record.id, missing)));
  return [...newest, ...more]
    .toSorted((a, b) => a.place - b.place || (a.id < b.id ? -1 : 1))
    .map((row) => ({ id: row.id, values: ValuesSchema.parse(row.values) }));
}

/** The records before and after one in the order of the list, where newer ones stand first. */
export async function neighboursOf(
  form: string,
  id: string,
): Promise<{ previous: string | null; next: string | null }> {
  const [here] = await database()
    .select({ place: record.place })
    .from(record)
    .where(and(eq(record.form, form), eq(record.id, id)));
  if (here === undefined) return { previous: null, next: null };
  const beside = async (after: boolean) => {
    const place = sql`(${record.place}, ${record.id}) ${after ? sql`>` : sql`<`} (${here.place}, ${id})`;
    const by = after ? [asc(record.place), asc(record.id)] : [desc(record.place), desc(record.id)];
    const [row] = await database()
      .select({ id: record.id })
      .from(record)
      .where(and(eq(record.form, form), place))
      .orderBy(...by)
      .limit(1);
    return row?.id ?? null;
  };
  const [previous, next] = await Promise.all([beside(false), beside(true)]);
  return { previous, next };
}

export interface Children extends FormRecords {
  count: Count;
}

/** For each list of a form, the newest records that refer to this one. */
export async function childrenOf(form: Form, id: string | null): Promise<Record<string, Children>> {
  const lists = await Promise.all(
    (form.children ?? []).map(async (list) => {
      const child = (await readDocument({ kind: 'form', name: list.form }))?.content;
      if (child === undefined) return [];
      if (id === null)
        return [
          [list.name, { form: child, records: [], count: { count: 0, more: false } }] as const,
        ];
      const refers = fieldIs(child, list.field, id);
      const [rows, count] = await Promise.all([
        database()
          .select(COLUMNS)
          .from(record)
          .where(and(eq(record.form, list.form), refers))
          .orderBy(asc(record.place), asc(record.id))
          .limit(CHILD_RECORDS),
        countRecords(list.form, refers, 1000),
      ]);
      return [
        [
          list.name,
          {
            form: child,
            records: rows.map((row) => ({ id: row.id, values: ValuesSchema.parse(row.values) })),
            count,
          },
        ] as const,
      ];
    }),
  );
  return Object.fromEntries(lists.flat());
}

/** Earlier states of a record, the newest first. */
export async function recordHistory(
  form: string,
  id: string,
  before?: number,
): Promise<
  {
    revision: number;
    values: Values | null;
    release: number | null;
    savedBy: string;
    savedAt: string;
  }[]
> {
  const { number, values, release, savedBy, savedAt } = recordRevision;
  const where = and(
    eq(recordRevision.form, form),
    eq(recordRevision.id, id),
    before === undefined ? undefined : sql`${number} < ${before}`,
  );
  const rows = await database()
    .select({ number, values, release, savedBy, savedAt })
    .from(recordRevision)
    .where(where)
    .orderBy(desc(number))
    .limit(100);
  return rows.map((row) => ({
    revision: row.number,
    values: row.values === null ? null : ValuesSchema.parse(row.values),
    release: row.release,
    savedBy: row.savedBy,
    savedAt: row.savedAt.toISOString(),
  }));
}
