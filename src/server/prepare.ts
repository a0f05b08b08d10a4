/** Brings the database up to date, loads the demo into an empty one, and clears away old filling-ins. Run by `npm start` and the browser tests. */
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { readFolder } from '../workers/files';
import { readWorkspace } from '../core/workspace/workspace';
import { connect, isOutOfRoom } from './database';
import { tidyFillings } from './fillings/tidy';
import { holdsWorkspace, importWorkspace } from './import';
import { indexForm, insertRelease } from './releases';

const { database, pool } = connect();
// Two apps that start at once on one database take turns.
const turn = await pool.connect();
await turn.query('select pg_advisory_lock(1413567566)');
let failed: string | null = null;
try {
  await migrate(database, { migrationsFolder: 'drizzle' });
  if (!(await holdsWorkspace(database))) {
    const demo = readWorkspace(readFolder('demo'));
    await importWorkspace(database, demo);
    // So that each form of the demo can be filled in at once.
    for (const { form } of demo.forms) {
      await insertRelease(form.name);
      await indexForm(form);
    }
    console.log('tavro: loaded the demo workspace');
  }
  await tidyFillings(database, Date.now());
  await database.execute(sql`analyze record`);
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
  await pool.end();
}
if (failed !== null)
  console.error(`tavro: the database could not be brought up to date: ${failed}.`);
// Threads that compiled are not waited for.
process.exit(failed === null ? 0 : 1);
