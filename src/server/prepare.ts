/** Brings the database up to date and loads the demo into an empty one, and clears away old filling-ins. Run by `npm start` and the browser tests. */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { readFolder } from '../workers/files';
import { readWorkspace } from '../core/workspace/workspace';
import { connect } from './database';
import { importWorkspace } from './import';
import * as schema from './schema';
import { tidyFillings } from './tidy';

const { database, pool } = connect();
await migrate(database, { migrationsFolder: 'drizzle' });
const [some] = await database.select().from(schema.workspace).limit(1);
if (some === undefined) {
  await importWorkspace(database, readWorkspace(readFolder('demo')));
  console.log('tavro: loaded the demo workspace');
}
await tidyFillings(database, Date.now());
await pool.end();
