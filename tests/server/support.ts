/** A database of its own for the server's tests, in the PostgreSQL that the test command starts. */
import { Client } from 'pg';
import { connectionTo, database, disconnect } from '../../src/server/database/database';
import { forgetKept, HOME, standAlone } from '../../src/server/database/current-workspace';
import { EXTENSIONS_APART, migrateWorkspace } from '../../src/server/workspaces/making';
import { forgetFound, REGISTRY, REGISTRY_TABLES } from '../../src/server/workspaces/registry';
import { endMachines } from '../../src/server/machines/server-pool';
import { importWorkspace } from '../../src/server/workspaces/import';
import { readWorkspace } from '../../src/core/workspace/workspace';
import {
  beginFilling,
  handOut,
  type Filling,
  type HowOpened,
} from '../../src/server/fillings/handing-out';
import { readRecord } from '../../src/server/records/read';
import { newestRelease } from '../../src/server/releases/releases';
import { readDocument, type Key } from '../../src/server/revisions/documents';
import { readHead } from '../../src/server/content/read';
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
  await disconnect();
  forgetKept();
  forgetFound();
  process.env.DATABASE_URL = url.href;
  standAlone(HOME);
  const { pool } = connectionTo(REGISTRY);
  await pool.query(EXTENSIONS_APART);
  await pool.query(REGISTRY_TABLES);
  await migrateWorkspace();
  await importWorkspace(database(), readWorkspace(readFolder('demo')));
  return async () => {
    endMachines();
    await disconnect();
  };
}

/** The revision that somebody who saves now starts from; 0 when there is none yet. */
export async function revisionOf(key: Key): Promise<number> {
  return (await readDocument(key))?.revision ?? 0;
}

/** Hands a form out to the first person and begins to fill it in. */
export async function begin(
  form: string,
  record: string | null,
  how: Partial<HowOpened> = {},
): Promise<Filling> {
  const person = (await readHead()).people[0]!;
  const stored = record === null ? null : await readRecord(form, record);
  const { ticket } = await handOut((await newestRelease(form))!, person, stored, {
    launch: {},
    ...how,
  });
  return beginFilling(form, ticket, person);
}
