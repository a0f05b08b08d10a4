/** A workspace as its folder has it, and out as a zip. */
import { headOf } from '../../core/workspace/head';
import { asc, eq } from 'drizzle-orm';
import { RECORDS_IN_FOLDER } from '../../core/limits';
import type { SampleRecord } from '../../core/scenario/opening';
import { ValuesSchema } from '../../core/session/schema';
import type { Workspace } from '../../core/workspace/workspace';
import { database } from '../database/database';
import { readSamples } from '../records/read';
import * as schema from '../database/schema';
import { task } from '../machines/tasks';
import { readHead, readReach, recordsNamed } from '../content/read';

/** The workspace at hand as a folder has it; of records those that scenarios open, or the newest of all as well. */
export async function readFolderOf(withRecords: boolean): Promise<Workspace> {
  const [head, reach] = await Promise.all([readHead(), readReach()]);
  const named = new Map<string, string[]>();
  const name = (form: string, ids: readonly string[]) =>
    named.set(form, [...(named.get(form) ?? []), ...ids]);
  for (const { form, scenarios } of reach.forms) {
    const { own, parents } = recordsNamed(scenarios);
    name(form.name, own);
    for (const [parent, ids] of parents) name(parent, ids);
  }
  const forms = [];
  for (const { form, behaviours, scenarios } of reach.forms) {
    const ids = new Set(named.get(form.name));
    const records = withRecords
      ? await newestRecords(form.name)
      : (await readSamples(form.name, [...ids])).filter(({ id }) => ids.has(id));
    forms.push({ form, behaviours, scenarios, records });
  }
  return {
    ...headOf(head),
    tables: reach.tables,
    services: reach.services,
    shared: reach.shared,
    forms,
  };
}

async function newestRecords(form: string): Promise<SampleRecord[]> {
  const { record } = schema;
  const rows = await database()
    .select({ id: record.id, values: record.values })
    .from(record)
    .where(eq(record.form, form))
    .orderBy(asc(record.place), asc(record.id))
    .limit(RECORDS_IN_FOLDER);
  return rows.map(({ id, values }) => ({ id, values: ValuesSchema.parse(values) }));
}

/** A zip of the workspace at hand. */
export async function packWorkspace(folder: string, withRecords: boolean): Promise<Uint8Array> {
  return task('pack', { workspace: await readFolderOf(withRecords), folder });
}
