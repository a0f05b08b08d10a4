/** Lists of records: every page follows the one before, whatever is sorted, searched and narrowed down. Against a real PostgreSQL. */
import { RECORDS_PER_PAGE } from '../../src/core/limits';
import { parse } from 'csv-parse/sync';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { listedFields } from '../../src/core/form/listing';
import { database, transaction } from '../../src/server/database/database';
import type { RecordFormat } from '../../src/core/workspace/records-out';
import { exportedRecords } from '../../src/server/records/export';
import { listRecords, type ListQuery } from '../../src/server/records/list';
import {
  neighboursOf,
  readSamples,
  recordHistory,
  type StoredRecord,
} from '../../src/server/records/read';
import { removeRecord, saveRecord } from '../../src/server/records/save';
import { indexForm } from '../../src/server/releases/releases';
import * as schema from '../../src/server/database/schema';
import { readForm } from '../../src/server/content/read';
import { freshDatabase } from './support';

const FORM = 'berth_visit';
let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tavro_records_test');
  // Many alike, some empty, some whose ids are no numbers.
  const rows = Array.from({ length: 350 }, (_, n) => ({
    form: FORM,
    id: n % 50 === 7 ? `x-${n}` : String(1000 + n),
    values: {
      vessel: n % 9 === 0 ? null : ['Åse', 'aurelle', 'Zeta 100%', 'Marrow_Star'][n % 4],
      vessel_kind: ['tug', 'yacht'][n % 2],
      length: n % 7 === 0 ? null : (n * 37) % 90,
      arrival: n % 11 === 0 ? null : `2031-0${1 + (n % 9)}-01`,
    },
    revision: 1,
    savedBy: 'mira',
  }));
  await database().insert(schema.record).values(rows);
});
afterAll(() => end());

const form = async () => (await readForm(FORM))!;

/** All pages of a query, one after the other. */
async function all(
  query: Omit<Partial<ListQuery>, 'after'>,
): Promise<{ records: StoredRecord[]; pages: number }> {
  const records: StoredRecord[] = [];
  let after: string | undefined;
  for (let pages = 1; ; pages++) {
    const page = await listRecords(await form(), {
      narrowed: [],
      ...query,
      ...(after === undefined ? {} : { after }),
    });
    records.push(...page.records);
    if (page.next === null) return { records, pages };
    after = page.next;
  }
}

describe('pages', () => {
  test('show every record once, those with the highest numbers first', async () => {
    const { records, pages } = await all({});
    const ids = records.map(({ id }) => id);
    expect([new Set(ids).size, ids.length, pages]).toEqual([
      356,
      356,
      Math.ceil(356 / RECORDS_PER_PAGE),
    ]);
    const numbers = ids.filter((id) => /^\d+$/.test(id)).map(Number);
    expect(numbers).toEqual(numbers.toSorted((a, b) => b - a));
    expect(ids.slice(-7).every((id) => id.startsWith('x-'))).toBe(true);
  });

  test.each(['vessel', 'length', 'arrival', 'vessel_kind'])(
    'sorted by %s each way are each the other read backwards, empty first',
    async (field) => {
      const [up, down] = [await all({ sort: field }), await all({ sort: `-${field}` })];
      expect(down.records.map(({ id }) => id)).toEqual(up.records.map(({ id }) => id).toReversed());
      expect(new Set(up.records.map(({ id }) => id)).size).toBe(356);
      const values = up.records.map(({ values: all }) => all[field] ?? null);
      const firstFull = values.findIndex((value) => value !== null);
      expect(values.slice(firstFull)).not.toContain(null);
      const collator = new Intl.Collator('und');
      const full = values.slice(firstFull) as (string | number)[];
      const compare = (a: string | number, b: string | number) =>
        typeof a === 'number'
          ? a - (b as number)
          : collator.compare(a.toLowerCase(), String(b).toLowerCase());
      expect(full.every((value, i) => i === 0 || compare(full[i - 1]!, value) <= 0)).toBe(true);
    },
  );

  test('stay right while records come and go between them', async () => {
    const first = await listRecords(await form(), { narrowed: [] });
    await saveRecord({ form: FORM, id: '9999' }, {}, 0, 'mira');
    const second = await listRecords(await form(), { narrowed: [], after: first.next! });
    expect(second.records[0]!.id).toBe(String(Number(first.records.at(-1)!.id) - 1));
    await removeRecord({ form: FORM, id: '9999' }, 1, 'mira');
    expect(
      (await recordHistory(FORM, '9999')).map(({ revision, values }) => [revision, values]),
    ).toEqual([
      [2, null],
      [1, {}],
    ]);
  });
});

describe('searching and narrowing down', () => {
  const ids = async (query: Omit<Partial<ListQuery>, 'after'>) =>
    (await all(query)).records.map(({ id }) => id);

  test('finds what is in any field, and takes no character for a wildcard', async () => {
    expect((await ids({ search: 'zeta 100%' })).length).toBe(
      (await all({})).records.filter(({ values }) => values.vessel === 'Zeta 100%').length,
    );
    expect(await ids({ search: 'zeta%100' })).toEqual([]);
    expect(await ids({ search: 'marrow star' })).not.toContain('1003');
    expect(await ids({ search: '1003' })).toEqual(['1003']);
    expect(await ids({ search: '7' })).toEqual([]);
    await expect(ids({ search: 'ab' })).rejects.toMatchObject({
      status: 400,
      message: expect.stringContaining('3 letters'),
    });
  });

  test('by a column: an option, a range, a text', async () => {
    const every = (await all({})).records;
    const same = async (
      narrowed: ListQuery['narrowed'],
      wanted: (record: StoredRecord) => boolean,
    ) => expect(await ids({ narrowed })).toEqual(every.filter(wanted).map(({ id }) => id));
    await same([{ field: 'vessel_kind', is: 'tug' }], ({ values }) => values.vessel_kind === 'tug');
    await same(
      [{ field: 'length', from: '20', to: '40' }],
      ({ values }) => Number(values.length ?? NaN) >= 20 && Number(values.length) <= 40,
    );
    await same(
      [{ field: 'arrival', to: '2031-03-01' }],
      ({ values }) => values.arrival != null && String(values.arrival) <= '2031-03-01',
    );
    await same([{ field: 'vessel', is: 'marrow_' }], ({ values }) =>
      String(values.vessel ?? '')
        .toLowerCase()
        .includes('marrow_'),
    );
    await same(
      [
        { field: 'vessel_kind', is: 'tug' },
        { field: 'length', from: '50' },
      ],
      ({ values }) => values.vessel_kind === 'tug' && Number(values.length ?? NaN) >= 50,
    );
  });

  test.each([
    [{ sort: 'nothing' }, 'has no column "nothing"'],
    [{ sort: 'length; drop table record' }, 'has no column'],
    [{ after: 'x' }, 'no page that begins there'],
    [{ after: Buffer.from('["a",1,"b",2]').toString('base64url') }, 'no page that begins there'],
    [
      {
        sort: 'length',
        after: Buffer.from('["1); drop table record; --",1,"b"]').toString('base64url'),
      },
      'no page that begins there',
    ],
    [{ narrowed: [{ field: 'length', from: 'long' }] }, 'is a number; "long" is none'],
    [{ narrowed: [{ field: 'constructor', is: 'x' }] }, 'has no column "constructor"'],
  ])('what cannot be asked is refused in words: %j', async (query, says) => {
    await expect(listRecords(await form(), { narrowed: [], ...query })).rejects.toMatchObject({
      status: 400,
      message: expect.stringContaining(says),
    });
  });
});

test('neighbours follow the order of the list', async () => {
  const { records } = await all({});
  for (const at of [0, 1, 120, records.length - 1]) {
    expect(await neighboursOf(FORM, records[at]!.id)).toEqual({
      previous: records[at - 1]?.id ?? null,
      next: records[at + 1]?.id ?? null,
    });
  }
  expect(await neighboursOf(FORM, 'nothing')).toEqual({ previous: null, next: null });
});

test('samples are the newest, with those asked for, however many there are', async () => {
  const samples = await readSamples(FORM, ['1', '1000', '1000', 'nothing']);
  expect([samples.length, samples.slice(-2).map(({ id }) => id), samples[0]!.id]).toEqual([
    52,
    ['1000', '1'],
    '1349',
  ]);
});

test('each column of the list has an index that the list uses', async () => {
  const indexes = async () => {
    const { rows } = await database().execute(
      sql`select indexname from pg_indexes where indexname like 'record_by_%' and indexdef like ${`%(form = '${FORM}'::text)`} order by 1`,
    );
    return rows.map(({ indexname }) => indexname);
  };
  await indexForm(await form());
  const made = await indexes();
  expect(made.length).toBeGreaterThanOrEqual(listedFields(await form()).length);
  await database().execute(
    sql.raw(`create index "record_by_former" on record (place) where form = '${FORM}'`),
  );
  await indexForm(await form());
  expect(await indexes()).toEqual(made);
  await database().execute(sql`analyze record`);
  const plan = await transaction(async (tx) => {
    await tx.execute(sql`set local enable_seqscan = off`);
    return tx.execute(
      sql`explain select id from record where form = ${FORM} order by (tavro_text("values" -> 'vessel') collate "und-x-icu"), place, id limit 10`,
    );
  });
  expect(JSON.stringify(plan.rows)).toMatch(/Index Scan using record_by_/);
});

test('records that do not match are passed over in the index, whatever the order', async () => {
  await indexForm(await form());
  for (const order of [
    sql`(tavro_text("values" -> 'vessel') collate "und-x-icu"), place, id`,
    sql`place, id`,
  ]) {
    const plan = await transaction(async (tx) => {
      await tx.execute(sql`set local enable_seqscan = off`);
      await tx.execute(sql`set local enable_bitmapscan = off`);
      await tx.execute(sql`set local enable_sort = off`);
      return tx.execute(
        sql`explain select id from record where form = ${FORM} and (tavro_text("values" -> 'vessel_kind') collate "und-x-icu") = 'tug' order by ${order} limit 10`,
      );
    });
    expect(JSON.stringify(plan.rows)).toMatch(/Index Cond: .*vessel_kind/);
  }
});

test('all records go out once, in each format, whatever is in them', async () => {
  const { rows } = await database().execute<{ id: string }>(
    sql`select id from record where form = ${FORM} order by id`,
  );
  const want = rows.map(({ id }) => id);
  expect(want.length).toBeGreaterThan(350);
  const read = async (as: RecordFormat) => new Response(exportedRecords(await form(), as)).text();
  const ids = (of: unknown) => (of as { id: string }[]).map(({ id }) => id);
  const lines = (await read('jsonl')).trimEnd().split('\n');
  expect(ids(JSON.parse(await read('json')))).toEqual(want);
  expect(ids(lines.map((line) => JSON.parse(line) as unknown))).toEqual(want);
  const [head, ...cells] = parse(await read('csv'));
  expect(cells.map(([id]) => id)).toEqual(want);
  expect(head!.slice(0, 3)).toEqual(['id', 'vessel_record', 'vessel']);
  // More than one piece.
  const more = Array.from({ length: 1200 }, (_, n) => ({
    form: 'vessel',
    id: `n-${n}`,
    values: { name: `N ${n}` },
    revision: 1,
    savedBy: 'mira',
  }));
  await database().insert(schema.record).values(more);
  const vessels = (await new Response(
    exportedRecords((await readForm('vessel'))!, 'json'),
  ).json()) as { id: string }[];
  expect(new Set(ids(vessels)).size).toBe(vessels.length);
  expect(vessels.length).toBeGreaterThanOrEqual(1200);
});
