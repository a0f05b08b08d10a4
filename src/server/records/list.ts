/** A form's records in pages: searched, narrowed down and sorted by the columns of the list. Each page begins where the last one ended. */
import { RECORDS_PER_PAGE, SEARCH_LETTERS } from '../../core/limits';
import { and, eq, sql, type SQL } from 'drizzle-orm';
import * as z from 'zod';
import type { Field, Form } from '../../core/form/definition';
import { listedFields, narrowedBy } from '../../core/form/listing';
import { database, transaction } from '../database/database';
import { countRecordings } from './recording-counts';
import { Refusal } from '../http/refusal';
import * as schema from '../database/schema';
import { columnOf } from './columns';
import { asRecord, COLUMNS, countRecords, type Count, type StoredRecord } from './read';
import { isNumeric } from '../../core/form/traits';

const { record } = schema;

export interface ListQuery {
  search?: string;
  /** A column, `-` before it for the other way round; the newest first where it is left out. */
  sort?: string;
  /** Where the last page ended. */
  after?: string;
  narrowed: { field: string; is?: string; from?: string; to?: string }[];
}

/** A record in the list, with how many recordings there are of how it was filled in, where there are any. */
export interface ListedRecord extends StoredRecord {
  recordings?: number;
}

export interface ListPage {
  records: ListedRecord[];
  /** Where the next page begins; null at the end. */
  next: string | null;
  /** Of all that match; only on the first page. */
  total: Count | null;
}

const Cursor = z.tuple([
  z.union([z.string(), z.number(), z.null()]),
  z.int().min(-Number.MAX_SAFE_INTEGER).max(Number.MAX_SAFE_INTEGER),
  z.string(),
]);

/** A page of records. Throws a Refusal (400) for a column that the list does not have, and for a search that is too short. */
export async function listRecords(form: Form, query: ListQuery): Promise<ListPage> {
  const fields = listedFields(form);
  const column = (name: string): Field => {
    const field = fields.find((one) => one.name === name);
    if (field === undefined)
      throw new Refusal(400, `The list of ${form.title} has no column "${name}".`);
    return field;
  };
  const search = query.search?.trim().toLowerCase() ?? '';
  if (search !== '' && search.length < SEARCH_LETTERS && !/^\d+$/.test(search))
    throw new Refusal(
      400,
      `Search for ${SEARCH_LETTERS} letters or more, or for the number of a record.`,
    );
  const backwards = query.sort?.startsWith('-') === true;
  const sorted = query.sort === undefined ? null : column(query.sort.replace(/^-/, ''));
  const matching = and(
    search === '' ? undefined : searched(search),
    ...query.narrowed.map((one) => narrowing(column(one.field), one)),
  );
  const asked: PageQuery = {
    form: form.name,
    matching,
    sorted,
    backwards,
    beyond: query.after === undefined ? undefined : beyond(query.after, sorted, backwards),
  };
  const few = matching === undefined ? null : await amongFew(asked);
  const rows = few?.rows ?? (await inOrder(asked));
  const total =
    query.after !== undefined
      ? null
      : few !== null
        ? { count: few.count, more: false }
        : matching === undefined
          ? await countRecords(form.name)
          : { count: MOST_FEW, more: true };
  const last = rows.length > RECORDS_PER_PAGE ? rows[RECORDS_PER_PAGE - 1]! : null;
  const records = rows.slice(0, RECORDS_PER_PAGE).map(asRecord);
  const recordings = await countRecordings(
    form.name,
    records.map(({ id }) => id),
  );
  return {
    records: records.map((one) => {
      const count = recordings[one.id];
      return count === undefined ? one : { ...one, recordings: count };
    }),
    next:
      last === null
        ? null
        : Buffer.from(JSON.stringify([last.key, last.place, last.id])).toString('base64url'),
    total,
  };
}

interface PageQuery {
  form: string;
  matching: SQL | undefined;
  sorted: Field | null;
  backwards: boolean;
  /** Where the page begins. */
  beyond: SQL | undefined;
}

type ListedRow = Parameters<typeof asRecord>[0] & { place: number; key: string | null };

/** At most so many matches are gathered and sorted. Where there are more, reading in the wanted order soon meets them. */
const MOST_FEW = 5000;

function order({ sorted, backwards }: PageQuery): SQL[] {
  return [
    ...(sorted === null ? [] : [columnOf(sorted)]),
    sql`${record.place}`,
    sql`${record.id}`,
  ].map((one) => (backwards ? sql`${one} desc` : sql`${one} asc`));
}

const keyOf = (sorted: Field | null) =>
  sorted === null ? sql<string | null>`null` : sql<string | null>`${columnOf(sorted)}::text`;

/** The page when not many match: they are gathered, whatever the order. Null when there are more. */
async function amongFew(asked: PageQuery): Promise<{ rows: ListedRow[]; count: number } | null> {
  const { rows: found } = await transaction(async (tx) => {
    await tx.execute(sql`set local work_mem = '64MB'`);
    await tx.execute(sql`set local enable_seqscan = off`);
    // Planned as if all that match were wanted, so that the indexes of several conditions are met before any record is
    // read; then read only until there are too many.
    return tx.execute(
      sql`with found as materialized (select id from record where form = ${asked.form} and ${asked.matching}) select id from found limit ${MOST_FEW + 1}`,
    );
  });
  if (found.length > MOST_FEW) return null;
  const ids = found.map(({ id }) => id as string);
  const among = and(
    eq(record.form, asked.form),
    sql`${record.id} = any(${sql.param(ids)})`,
    asked.beyond,
  );
  const rows = await database()
    .select({ ...COLUMNS, key: keyOf(asked.sorted) })
    .from(record)
    .where(among)
    .orderBy(...order(asked))
    .limit(RECORDS_PER_PAGE + 1);
  return { rows, count: ids.length };
}

/** The page when many match, or all: read in the order asked for until it is full. */
async function inOrder(asked: PageQuery): Promise<ListedRow[]> {
  return transaction(async (tx) => {
    // Gathering all that match and sorting them would take as long as there are records.
    await tx.execute(sql`set local enable_bitmapscan = off`);
    await tx.execute(sql`set local enable_sort = off`);
    return tx
      .select({ ...COLUMNS, key: keyOf(asked.sorted) })
      .from(record)
      .where(and(eq(record.form, asked.form), asked.matching, asked.beyond))
      .orderBy(...order(asked))
      .limit(RECORDS_PER_PAGE + 1);
  });
}

function searched(search: string): SQL {
  const contains = sql`${record.words} like ${`%${escaped(search)}%`}`;
  if (!/^\d+$/.test(search) || search.length > 18) return contains;
  const byNumber = sql`${record.place} = -(${search}::bigint)`;
  return search.length < SEARCH_LETTERS ? byNumber : sql`(${byNumber} or ${contains})`;
}

/** Nothing of a search means anything to `like`. */
function escaped(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}

function narrowing(field: Field, { is, from, to }: ListQuery['narrowed'][number]): SQL | undefined {
  const column = columnOf(field);
  const read = (text: string) => {
    if (!isNumeric(field)) return sql`${text.toLowerCase()}`;
    if (!/^-?\d{1,15}(\.\d{1,10})?$/.test(text))
      throw new Refusal(400, `${field.label} is a number; "${text.slice(0, 40)}" is none.`);
    return sql`${text}::numeric`;
  };
  if (is !== undefined && narrowedBy(field) === 'text') {
    const like = `%${escaped(is.toLowerCase())}%`;
    return and(sql`${record.words} like ${like}`, sql`${column} like ${like}`);
  }
  if (is !== undefined && field.kind === 'choices')
    return sql`${record.values} -> ${field.name} ? ${is}`;
  return and(
    is === undefined ? undefined : sql`${column} = ${read(is)}`,
    from === undefined ? undefined : sql`${column} >= ${read(from)}`,
    // Empty comes first, and is not before any date.
    to === undefined
      ? undefined
      : and(
          sql`${column} <= ${read(to)}`,
          isNumeric(field) ? sql`${column} > '-Infinity'::numeric` : sql`${column} > ''`,
        ),
  );
}

/** What comes after the record a page ended with. */
function beyond(after: string, sorted: Field | null, backwards: boolean): SQL {
  let cursor: z.infer<typeof Cursor>;
  try {
    cursor = Cursor.parse(JSON.parse(Buffer.from(after, 'base64url').toString('utf8')));
  } catch {
    throw new Refusal(400, 'There is no page that begins there.');
  }
  const [key, place, id] = cursor;
  const compare = backwards ? sql`<` : sql`>`;
  if (sorted === null) return sql`(${record.place}, ${record.id}) ${compare} (${place}, ${id})`;
  if (isNumeric(sorted) && !/^(?:-?\d+(\.\d+)?|-Infinity)$/.test(String(key)))
    throw new Refusal(400, 'There is no page that begins there.');
  const from = isNumeric(sorted)
    ? sql`${String(key)}::numeric`
    : sql`(${String(key ?? '')}::text collate "und-x-icu")`;
  return sql`(${columnOf(sorted)}, ${record.place}, ${record.id}) ${compare} (${from}, ${place}, ${id})`;
}
