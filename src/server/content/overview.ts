/** The page of forms: what each form has and how it stands, in a few queries however many forms there are. */
import { RECORDS_COUNTED_PER_FORM, REMOVED_FORMS } from '../../core/limits';
import { sql } from 'drizzle-orm';
import * as z from 'zod';
import {
  changesBetween,
  partKey,
  RELEASED,
  type FormRow,
  type Parts,
  type RecordsOfForm,
  type RemovedForm,
} from '../../core/workspace/overview';
import { database, type Database } from '../database/database';

const OverviewRow = z.object({
  name: z.string(),
  title: z.string(),
  revision: z.number(),
  behaviours: z.number(),
  scenarios: z.number(),
  records: z.number(),
  state: z.string(),
  passed: z.number().nullable(),
  failed: z.number().nullable(),
  run_of: z.string().nullable(),
  coverage: z.number().nullable(),
  run_at: z.coerce.date().nullable(),
  errors: z.number().nullable(),
  warnings: z.number().nullable(),
  check_of: z.string().nullable(),
  wrong: z.number().nullable(),
  found_of: z.string().nullable(),
  changed: z.number().nullable(),
  changed_of: z.string().nullable(),
  release: z.number().nullable(),
  released_at: z.coerce.date().nullable(),
  made_of: z.record(z.string(), z.string()).nullable(),
  touched_at: z.coerce.date(),
  touched_by: z.string().nullable(),
});
type OverviewRow = z.infer<typeof OverviewRow>;

/** What scenario results of a form depend on, in a word: the revisions of its own documents and of those all forms share. */
const STATE = sql`md5(concat((select string_agg(d.id || ':' || d.revision, ',' order by d.id) from document d where d.content is not null and (d.form = f.name and d.kind <> 'head' or d.form = '' and d.kind in ('table', 'service', 'shared', 'head') or d.id = f.id))))`;

const COUNTED = sql`(select count(*)::int from (select 1 from record r where r.form = f.name limit ${RECORDS_COUNTED_PER_FORM + 1}) as counted)`;

const CountRow = OverviewRow.pick({ name: true, title: true, records: true }).extend({
  released: z.boolean(),
});

const asCount = (records: number) => ({
  count: Math.min(records, RECORDS_COUNTED_PER_FORM),
  more: records > RECORDS_COUNTED_PER_FORM,
});

/** How many records each form has. */
export async function readRecordCounts(): Promise<RecordsOfForm[]> {
  const { rows } = await database().execute(sql`
    select f.name, f.content ->> 'title' as title, ${COUNTED} as records,
      exists (select 1 from release where release.form = f.name) as released
    from document f where f.kind = 'form' and f.content is not null order by f.name`);
  return z
    .array(CountRow)
    .parse(rows)
    .map((row) => ({ ...row, records: asCount(row.records) }));
}

export async function readOverview(): Promise<FormRow[]> {
  const { rows } = await database().execute(sql`
    select f.name, f.content ->> 'title' as title, f.revision,
      (select count(*)::int from document d where d.kind = 'behaviour' and d.form = f.name and d.content is not null) as behaviours,
      (select count(*)::int from document d where d.kind = 'scenario' and d.form = f.name and d.content is not null) as scenarios,
      ${COUNTED} as records,
      ${STATE} as state, s.passed, s.failed, s.of as run_of, s.coverage, s.at as run_at, c.errors, c.warnings, c.of as check_of, x.wrong, x.of as found_of, y.count as changed, y.of as changed_of,
      n.number as release, n.created_at as released_at, n.made_of, t.saved_at as touched_at, t.saved_by as touched_by
    from document f
    left join scenario_run s on s.form = f.name
    left join form_check c on c.form = f.name
    left join form_found x on x.form = f.name
    left join lateral (select number, created_at, made_of from release where release.form = f.name order by number desc limit 1) n on true
    left join form_changed y on y.form = f.name and y.release = n.number
    cross join lateral (select r.saved_at, r.saved_by from document d join revision r on r.document = d.id and r.number = d.revision where d.form = f.name or d.id = f.id order by r.saved_at desc limit 1) t
    where f.kind = 'form' and f.content is not null
    order by f.name`);
  const forms = z.array(OverviewRow).parse(rows);
  const now = await readParts(
    forms.flatMap(({ name, made_of }) => (made_of === null ? [] : [name])),
  );
  return forms.map((row) => asFormRow(row, now));
}

function asFormRow(row: OverviewRow, now: ReadonlyMap<string, Parts>): FormRow {
  const { name, title, revision, behaviours, scenarios, records, state } = row;
  return {
    name,
    title,
    revision,
    behaviours,
    scenarios,
    run:
      row.passed === null
        ? null
        : {
            passed: row.passed,
            failed: row.failed!,
            at: row.run_at!.toISOString(),
            current: row.run_of === state,
            coverage: row.coverage,
          },
    check:
      row.errors === null
        ? null
        : { errors: row.errors, warnings: row.warnings!, current: row.check_of === state },
    found: row.wrong === null ? null : { wrong: row.wrong, current: row.found_of === state },
    records: asCount(records),
    release:
      row.release === null
        ? null
        : {
            number: row.release,
            createdAt: row.released_at!.toISOString(),
            forPeople:
              row.changed === null
                ? null
                : { count: row.changed, current: row.changed_of === state },
            changes: row.made_of === null ? null : changesBetween(row.made_of, now.get(name) ?? {}),
          },
    touched: { at: row.touched_at.toISOString(), by: row.touched_by },
  };
}

const PartRow = z.object({
  kind: z.enum(RELEASED),
  form: z.string(),
  name: z.string(),
  digest: z.string(),
});

/** What each of these forms consists of now, with all tables and services. */
export async function readParts(forms: readonly string[]): Promise<Map<string, Parts>> {
  if (forms.length === 0) return new Map();
  const names = sql.param([...forms]);
  const { rows } = await database().execute(sql`
    select kind, form, name, md5(content::text) as digest from document
    where content is not null and (kind = 'form' and name = any(${names}) or kind = 'behaviour' and form = any(${names}) or kind in ('table', 'service', 'shared'))`);
  const parts = z.array(PartRow).parse(rows);
  const shared = parts.filter(({ kind }) => kind !== 'form' && kind !== 'behaviour');
  const found = new Map<string, Record<string, string>>(
    forms.map((form) => [
      form,
      Object.fromEntries(shared.map(({ kind, name, digest }) => [partKey(kind, name), digest])),
    ]),
  );
  for (const { kind, form, name, digest } of parts)
    if (kind === 'form') found.get(name)![partKey(kind, name)] = digest;
    else if (kind === 'behaviour') found.get(form)![partKey(kind, name)] = digest;
  return found;
}

/** Forms that were removed, the last one first, as they were called. */
export async function readRemovedForms(): Promise<RemovedForm[]> {
  const { rows } = await database().execute(sql`
    select d.name, (select r.content ->> 'title' from revision r where r.document = d.id and r.content is not null order by r.number desc limit 1) as title
    from document d join revision gone on gone.document = d.id and gone.number = d.revision
    where d.kind = 'form' and d.content is null
    order by gone.saved_at desc limit ${REMOVED_FORMS}`);
  return z.array(z.object({ name: z.string(), title: z.string() })).parse(rows);
}

/** What the scenario results of a form depend on, in a word; null when there is no such form. */
export async function stateOf(
  form: string,
  on: Pick<Database, 'execute'> = database(),
): Promise<string | null> {
  const { rows } = await on.execute(
    sql`select ${STATE} as state from document f where f.kind = 'form' and f.name = ${form} and f.content is not null`,
  );
  return rows.length === 0 ? null : z.object({ state: z.string() }).parse(rows[0]).state;
}
