/** A database of its own for the server's tests, in the PostgreSQL that the test command starts. */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Client } from 'pg';
import { connect, database } from '../../src/server/database';
import { importWorkspace } from '../../src/server/import';
import { readWorkspace } from '../../src/core/workspace/workspace';
import { readFolder } from '../../src/workers/files';

/** Makes an empty database of this name, migrates it and loads the demo; the server's modules then use it. */
export async function freshDatabase(name: string): Promise<() => Promise<void>> {
  const url = new URL(process.env.DATABASE_URL!);
  const admin = new Client({ connectionString: url.href });
  await admin.connect();
  await admin.query(`drop database if exists ${name}`);
  await admin.query(`create database ${name}`);
  await admin.end();
  url.pathname = `/${name}`;
  const kept = globalThis as { tavroDatabase?: ReturnType<typeof connect> };
  kept.tavroDatabase = connect(url.href);
  await migrate(database(), { migrationsFolder: 'drizzle' });
  await importWorkspace(database(), readWorkspace(readFolder('demo')));
  return () => kept.tavroDatabase!.pool.end();
}
