/** The page of forms: what each form has and how it stands, in a few queries however many forms there are. */
import { sql } from 'drizzle-orm';
import * as z from 'zod';
import { database } from '../database';

export interface FormRow {
  name: string;
  title: string;
  behaviours: number;
  scenarios: number;
  /** How the scenarios came out when they were last run; null when they never were. */
  run: {
    passed: number;
    failed: number;
    at: string;
    /** Nothing the outcome depends on was changed since. */ current: boolean;
  } | null;
  records: { count: number; more: boolean };
  release: { number: number; createdAt: string } | null;
}

/** Records counted for a form; more are "more". */
const MOST_COUNTED = 1000;

const Row = z.object({
  name: z.string(),
  title: z.string(),
  behaviours: z.number(),
  scenarios: z.number(),
  records: z.number(),
  state: z.string(),
  passed: z.number().nullable(),
  failed: z.number().nullable(),
  run_of: z.string().nullable(),
  run_at: z.coerce.date().nullable(),
  release: z.number().nullable(),
  released_at: z.coerce.date().nullable(),
});

/** What scenario results of a form depend on, in a word: the revisions of its own documents and of those all forms share. */
const STATE = sql`md5(concat((select string_agg(d.id || ':' || d.revision, ',' order by d.id) from document d where d.content is not null and (d.form = f.name and d.kind <> 'head' or d.form = '' and d.kind in ('table', 'service', 'head') or d.id = f.id))))`;

export async function readOverview(): Promise<FormRow[]> {
  const { rows } = await database().execute(sql`
    select f.name, f.content ->> 'title' as title,
      (select count(*)::int from document d where d.kind = 'behaviour' and d.form = f.name and d.content is not null) as behaviours,
      (select count(*)::int from document d where d.kind = 'scenario' and d.form = f.name and d.content is not null) as scenarios,
      (select count(*)::int from (select 1 from record r where r.form = f.name limit ${MOST_COUNTED + 1}) as counted) as records,
      ${STATE} as state, s.passed, s.failed, s.of as run_of, s.at as run_at, n.number as release, n.created_at as released_at
    from document f
    left join scenario_run s on s.form = f.name
    left join lateral (select number, created_at from release where release.form = f.name order by number desc limit 1) n on true
    where f.kind = 'form' and f.content is not null
    order by f.name`);
  return z
    .array(Row)
    .parse(rows)
    .map((row) => ({
      name: row.name,
      title: row.title,
      behaviours: row.behaviours,
      scenarios: row.scenarios,
      run:
        row.passed === null
          ? null
          : {
              passed: row.passed,
              failed: row.failed!,
              at: row.run_at!.toISOString(),
              current: row.run_of === row.state,
            },
      records: { count: Math.min(row.records, MOST_COUNTED), more: row.records > MOST_COUNTED },
      release:
        row.release === null
          ? null
          : { number: row.release, createdAt: row.released_at!.toISOString() },
    }));
}

/** What the scenario results of a form depend on, in a word; null when there is no such form. */
export async function stateOf(form: string): Promise<string | null> {
  const { rows } = await database().execute(
    sql`select ${STATE} as state from document f where f.kind = 'form' and f.name = ${form} and f.content is not null`,
  );
  return rows.length === 0 ? null : z.object({ state: z.string() }).parse(rows[0]).state;
}
