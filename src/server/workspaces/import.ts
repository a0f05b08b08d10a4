/** Puts a workspace read from a folder into an empty database. */
import { headOf } from '../../core/workspace/head';
import { sql } from 'drizzle-orm';
import type { Workspace } from '../../core/workspace/workspace';
import type { Database } from '../database/database';
import { saveMany, type Made } from '../revisions/save';
import * as schema from '../database/schema';

export async function importWorkspace(database: Database, workspace: Workspace): Promise<void> {
  const made = (kind: string, form: string, name: string, content: unknown): Made => ({
    kind,
    form,
    name,
    content,
    from: 0,
  });
  const places = [
    made('head', '', 'head', headOf(workspace)),
    ...workspace.tables.map((table) => made('table', '', table.name, table)),
    ...workspace.services.map((service) => made('service', '', service.name, service)),
    ...workspace.shared.map(({ name, text }) => made('shared', '', name, text)),
    ...workspace.forms.flatMap(({ form, behaviours, scenarios, records }) => [
      made('form', '', form.name, form),
      ...behaviours.map(({ name, text }) => made('behaviour', form.name, name, text)),
      ...scenarios.map(({ name, scenario }) => made('scenario', form.name, name, scenario)),
      ...records.map(({ id, values }) => made('record', form.name, id, values)),
    ]),
  ];
  const numbers = workspace.forms.map(({ form, records }) => ({
    form: form.name,
    next: Math.max(0, ...records.map(({ id }) => Number(id)).filter(Number.isInteger)) + 1,
  }));
  await database.transaction(async (tx) => {
    await saveMany(tx, places, workspace.people[0]!.key);
    if (numbers.length > 0) await tx.insert(schema.recordNumber).values(numbers);
  });
}

/** Whether the database holds a workspace yet. */
export async function holdsWorkspace(database: Database): Promise<boolean> {
  const { rows } = await database.execute(
    sql`select 1 from document where kind = 'head' and content is not null limit 1`,
  );
  return rows.length > 0;
}
