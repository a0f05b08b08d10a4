/** Puts a workspace read from a folder into an empty database. */
import type { Workspace } from '../core/workspace/workspace';
import type { Database } from './database';
import * as schema from './schema';

export async function importWorkspace(database: Database, workspace: Workspace): Promise<void> {
  const { title, roles, people } = workspace;
  await database.transaction(async (tx) => {
    await tx.insert(schema.workspace).values({ content: { title, roles, people } });
    for (const table of workspace.tables) await tx.insert(schema.referenceTable).values({ name: table.name, content: table });
    for (const service of workspace.services) await tx.insert(schema.service).values({ name: service.name, content: service });
    for (const { form, behaviours, scenarios, records } of workspace.forms) {
      await tx.insert(schema.form).values({ name: form.name, definition: form });
      for (const { name, text } of behaviours) {
        await tx.insert(schema.behaviour).values({ form: form.name, name, text, revision: 1 });
        await tx.insert(schema.behaviourRevision).values({ form: form.name, name, text, revision: 1 });
      }
      for (const { name, scenario } of scenarios) await tx.insert(schema.scenario).values({ form: form.name, name, content: scenario });
      for (const { id, values } of records) {
        await tx.insert(schema.record).values({ form: form.name, id, values, revision: 1, savedBy: people[0]!.key });
      }
      const numbers = records.map(({ id }) => Number(id)).filter(Number.isInteger);
      await tx.insert(schema.recordNumber).values({ form: form.name, next: Math.max(0, ...numbers) + 1 });
    }
  });
}
