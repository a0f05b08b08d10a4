/** The connection. Kept on globalThis, since development servers load modules anew and must not open pools anew. */
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;

const kept = globalThis as { tavroDatabase?: { database: Database; pool: Pool } };

export function connect(url = process.env.DATABASE_URL): { database: Database; pool: Pool } {
  if (url === undefined) throw new Error('DATABASE_URL is not set. Start the app with npm start.');
  const pool = new Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 2000 });
  // A connection that breaks while idle is replaced at the next query; it must not end the process.
  pool.on('error', () => undefined);
  return { database: drizzle(pool, { schema }), pool };
}

export function database(): Database {
  return (kept.tavroDatabase ??= connect()).database;
}

/** Whether a failure is the database being out of reach, as opposed to a fault in what was asked. */
export function isUnreachable(caught: unknown): boolean {
  const cause = caught instanceof Error && caught.cause instanceof Error ? caught.cause : caught;
  const { code = '', message = '' } = cause as { code?: string; message?: string };
  // Class 08 and 57P are PostgreSQL's connection exceptions and shutdowns (manual, appendix A).
  return /^(?:ECONN|EPIPE|ETIMEDOUT|08|57P)/.test(code) || /timeout|terminated/i.test(message);
}
