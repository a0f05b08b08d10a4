/** The connection. Kept on globalThis, since development servers load modules anew and must not open pools anew. */
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

const kept = globalThis as { tavroDatabase?: { database: Database; pool: Pool } };

export function connect(url = process.env.DATABASE_URL): { database: Database; pool: Pool } {
  if (url === undefined) throw new Error('DATABASE_URL is not set. Start the app with npm start.');
  const pool = new Pool({ connectionString: url, max: 12, connectionTimeoutMillis: 5000, statement_timeout: 60_000 });
  // A connection that breaks while idle is replaced at the next query; it must not end the process.
  pool.on('error', () => undefined);
  return { database: drizzle(pool, { schema }), pool };
}

export function database(): Database {
  return (kept.tavroDatabase ??= connect()).database;
}

/** The connection broke while a transaction was being committed: nobody knows whether it was. */
export class MaybeSaved extends Error {}

/**
 * Does work in a transaction. When the connection breaks in the commit, `again` says that the work can be done once
 * more whether or not it was committed, which tells; without it MaybeSaved is thrown.
 */
export async function transaction<T>(work: (tx: Transaction) => Promise<T>, { again = false } = {}): Promise<T> {
  let broke = false;
  for (let wait = 200; ; wait *= 3) {
    let committing = false;
    try {
      return await database().transaction(async (tx) => {
        const done = await work(tx);
        committing = true;
        return done;
      });
    } catch (caught) {
      // What PostgreSQL itself answers to a commit says that there was none; anything else leaves it open.
      const open = committing ? causeOf(caught).code === undefined || isUnreachable(caught) : broke && isUnreachable(caught);
      if (!open) throw caught;
      broke = true;
      if (!again || wait > 6000) throw new MaybeSaved('the connection broke in the commit', { cause: caught });
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
}

/** Whether a failure is the database being out of reach, as opposed to a fault in what was asked. */
export function isUnreachable(caught: unknown): boolean {
  const { code = '', message = '' } = causeOf(caught);
  // Class 08 and 57P are PostgreSQL's connection exceptions and shutdowns (manual, appendix A).
  return /^(?:ECONN|EPIPE|ETIMEDOUT|08|57P)/.test(code) || /^(?:Connection terminated|Client has encountered a connection error|Client was closed|timeout exceeded when trying to connect|Query read timeout)/.test(message);
}

/** Whether a failure is a full disk or another lack of room (class 53). */
export function isOutOfRoom(caught: unknown): boolean {
  return /^53[1-4]00$|^ENOSPC$/.test(causeOf(caught).code ?? '');
}

/** Whether a query was ended because it took too long. */
export function isTooSlow(caught: unknown): boolean {
  return causeOf(caught).code === '57014';
}

function causeOf(caught: unknown): { code?: string; message?: string } {
  return (caught instanceof Error && caught.cause instanceof Error ? caught.cause : caught) as { code?: string; message?: string };
}
