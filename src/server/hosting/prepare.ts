/** Brings the database up to date, loads the demo into an empty one, and clears away old filling-ins. Run by `npm start` and the browser tests. */
import { sql } from 'drizzle-orm';
import { readFolder } from '../../workers/files';
import { readWorkspace } from '../../core/workspace/workspace';
import { connectionTo, database, disconnect, isOutOfRoom } from '../database/database';
import { tidyKept } from '../fillings/kept';
import { tidyFillings } from '../fillings/tidy';
import { holdsWorkspace } from '../workspaces/import';
import { readHead } from '../content/read';
import { HOME, inWorkspace } from '../database/current-workspace';
import {
  dropRemoved,
  dropUnfinished,
  EXTENSIONS_APART,
  fillWorkspace,
  migrateWorkspace,
  releaseUnreleased,
} from '../workspaces/making';
import { askRegistry, listWorkspaces, REGISTRY, REGISTRY_TABLES } from '../workspaces/registry';

const registry = connectionTo(REGISTRY);
// Two apps that start at once on one database take turns.
const turn = await registry.pool.connect();
await turn.query('select pg_advisory_lock(1413567566)');
let failed: string | null = null;
try {
  await turn.query(EXTENSIONS_APART);
  await turn.query(REGISTRY_TABLES);
  await inWorkspace(HOME, async () => {
    await migrateWorkspace();
    if (!(await holdsWorkspace(database()))) {
      await fillWorkspace(readWorkspace(readFolder('demo')));
      console.log('tavro: loaded the demo workspace');
    } else if ((await listWorkspaces()).length === 0)
      // It is put on the list last: the start that filled it was killed on the way.
      await releaseUnreleased();
    const { title } = await readHead();
    await askRegistry(
      'insert into workspace (name, schema, title) values ($1, $2, $3) on conflict do nothing',
      [HOME.name, HOME.schema, title],
    );
  });
  for (const workspace of await listWorkspaces())
    await inWorkspace(workspace, async () => {
      if (workspace.schema !== HOME.schema) await migrateWorkspace();
      await tidyFillings(database(), Date.now());
      await tidyKept(database(), (await readHead()).fillings);
      await database().execute(sql`analyze record`);
    });
  await dropRemoved(Date.now());
  await dropUnfinished();
} catch (caught) {
  failed = isOutOfRoom(caught)
    ? 'the disk of the database is full. Make room, then start again'
    : caught instanceof Error
      ? caught.cause instanceof Error
        ? caught.cause.message
        : caught.message
      : String(caught);
} finally {
  turn.release(true);
  await disconnect();
}
if (failed !== null)
  console.error(`tavro: the database could not be brought up to date: ${failed}.`);
// Threads that compiled are not waited for.
process.exit(failed === null ? 0 : 1);
