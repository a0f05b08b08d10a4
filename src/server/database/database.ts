/** The database of the workspace at hand, what is done in it at once, and what its failures mean. */
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import type { Pool } from 'pg';
import { endConnections, poolOf } from './connections';
import * as schema from './schema';
import { currentWorkspace } from './current-workspace';

export { EXTENSIONS } from './connections';

export type Database = NodePgDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

interface Connection {
  database: Database;
  pool: Pool;
}

const kept = globalThis as { tavroDatabases?: Map<string, Connection> };
const databases = () => (kept.tavroDatabases ??= new Map<string, Connection>());

/** The connections to a schema: of a workspace, or of the list of them. */
export function connectionTo(schemaName: string): Connection {
  let found = databases().get(schemaName);
  if (found === undefined) {
    const pool = poolOf(schemaName);
    found = { database: drizzle(pool, { schema }), pool };
    databases().set(schemaName, found);
  }
  return found;
}

/** Ends all connections; the next question opens others. */
export async function disconnect(): Promise<void> {
  databases().clear();
  await endConnections();
}

const connection = () => connectionTo(currentWorkspace().schema);

export function database(): Database {
  return connection().database;
}

/** Asks what every submission asks, by a name under which each connection plans it once. Gives the rows. */
export async function ask(name: string, statement: string, values: unknown[]): Promise<unknown[]> {
  const { rows } = await connection().pool.query({ name, text: statement, values });
  return rows;
}

/** Work that may take as long as it takes, such as making indexes, over a connection of its own. */
export async function withoutLimit(work: (on: Database) => Promise<void>): Promise<void> {
  const client = await connection().pool.connect();
  try {
    await client.query('set statement_timeout = 0');
    await work(drizzle(client, { schema }));
  } finally {
    client.release(true);
  }
}

/** The connection broke while something was being saved: nobody knows whether it was. */
export class MaybeSaved extends Error {}

/**
 * Does work in a transaction. When the connection breaks in the commit, `again` says that the work can be done once
 * more whether or not it was committed, which tells; without it MaybeSaved is thrown.
 */
export function transaction<T>(
  work: (tx: Transaction) => Promise<T>,
  { again = false } = {},
): Promise<T> {
  return untilKnown(again, (saving) =>
    database().transaction(async (tx) => {
      const done = await work(tx);
      saving();
      return done;
    }),
  );
}

/** One statement that is a transaction of its own, and can be done again whether or not it was committed. */
export function atOnce<T>(statement: () => Promise<T>): Promise<T> {
  return untilKnown(true, (saving) => {
    saving();
    return statement();
  });
}

/** Does what saves something; `saving` is called when from now on it may have been saved, whatever goes wrong. */
async function untilKnown<T>(again: boolean, work: (saving: () => void) => Promise<T>): Promise<T> {
  let broke = false;
  for (let wait = 200; ; wait *= 3) {
    let saving = false;
    try {
      return await work(() => (saving = true));
    } catch (caught) {
      // What PostgreSQL itself answers to a commit says that there was none; anything else leaves it open.
      const open =
        saving && !wasNotReached(caught)
          ? causeOf(caught).code === undefined || isUnreachable(caught)
          : broke && isUnreachable(caught);
      if (!open) throw caught;
      broke = true;
      if (!again || wait > 6000)
        throw new MaybeSaved('the connection broke while this was being saved', { cause: caught });
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
}

/** Whether there was no connection, so that nothing was sent. */
function wasNotReached(caught: unknown): boolean {
  const { code = '', message = '' } = causeOf(caught);
  return (
    /^(?:ECONNREFUSED|57P03|53300)$/.test(code) ||
    message === 'timeout exceeded when trying to connect'
  );
}

/** Whether a failure is the database being out of reach, as opposed to a fault in what was asked. */
export function isUnreachable(caught: unknown): boolean {
  const { code = '', message = '' } = causeOf(caught);
  // Class 08 and 57P are PostgreSQL's connection exceptions and shutdowns (manual, appendix A).
  return (
    /^(?:ECONN|EPIPE|ETIMEDOUT|08|57P)/.test(code) ||
    /^(?:Connection terminated|Client has encountered a connection error|Client was closed|timeout exceeded when trying to connect|Query read timeout)/.test(
      message,
    )
  );
}

/** Whether a failure is a full disk or another lack of room (class 53). */
export function isOutOfRoom(caught: unknown): boolean {
  return /^53[1-4]00$|^ENOSPC$/.test(causeOf(caught).code ?? '');
}

/** Whether a query was ended because it took too long. */
export function isTooSlow(caught: unknown): boolean {
  return causeOf(caught).code === '57014';
}

/** Whether a statement was ended because it and others waited for each other. */
export function isDeadlock(caught: unknown): boolean {
  return causeOf(caught).code === '40P01';
}

function causeOf(caught: unknown): { code?: string; message?: string } {
  return (caught instanceof Error && caught.cause instanceof Error ? caught.cause : caught) as {
    code?: string;
    message?: string;
  };
}
