/** Puts a workspace read from a folder into an empty database. */
import { sql } from 'drizzle-orm';
import type { Workspace } from '../core/workspace/workspace';
import type { Database } from './database';
import { saveRecord } from './records/save';
import { saveDocument } from './revisions/documents';
import * as schema from './schema';

export async function importWorkspace(database: Database, workspace: Workspace): Promise<void> {
  const { title, roles, people, dates } = workspace;
  const head = { title, roles, people, ...(dates === undefined ? {} : { dates }) };
  const by = people[0]!.key;
  await database.transaction(async (tx) => {
    await saveDocument({ kind: 'head', name: 'head' }, head, 0, by, tx);
    for (const table of workspace.tables)
      await saveDocument({ kind: 'table', name: table.name }, table, 0, by, tx);
    for (const service of workspace.services)
      await saveDocument({ kind: 'service', name: service.name }, service, 0, by, tx);
    for (const { name, text } of workspace.shared)
      await saveDocument({ kind: 'shared', name }, text, 0, by, tx);
    for (const { form, behaviours, scenarios, records } of workspace.forms) {
      await saveDocument({ kind: 'form', name: form.name }, form, 0, by, tx);
      for (const { name, text } of behaviours)
        await saveDocument({ kind: 'behaviour', form: form.name, name }, text, 0, by, tx);
      for (const { name, scenario } of scenarios)
        await saveDocument({ kind: 'scenario', form: form.name, name }, scenario, 0, by, tx);
      for (const { id, values } of records)
        await saveRecord({ form: form.name, id }, values, 0, by, tx);
      const numbers = records.map(({ id }) => Number(id)).filter(Number.isInteger);
      await tx
        .insert(schema.recordNumber)
        .values({ form: form.name, next: Math.max(0, ...numbers) + 1 });
    }
  });
}

/** Whether the database holds a workspace yet. */
export async function holdsWorkspace(database: Database): Promise<boolean> {
  const { rows } = await database.execute(
    sql`select 1 from document where kind = 'head' and content is not null limit 1`,
  );
  return rows.length > 0;
}
