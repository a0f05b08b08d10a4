/**
 * Connections to PostgreSQL: so many for the whole process, however many workspaces it serves, and one workspace never has
 * all of them. Which workspace's tables unqualified names mean is said to a connection when it is taken.
 */
import { DatabaseError, Pool, type PoolClient, type QueryConfig, type QueryResult } from 'pg';
import { environment } from './environment';
import { Busy, Turns } from './turns';

/** Connections of the process. PostgreSQL is started for 400, which leaves room for several apps and for tools. */
const CONNECTIONS = 30;
/** Of those, the most for one workspace: more than the two cores of a small server keep busy. */
const OF_ONE = 12;
/**
 * Real milliseconds to get one before whoever asked is asked to come again (503). Protects the queue; a busy machine (load
 * 20 on two cores) takes more than five seconds for what takes half a second otherwise.
 */
const PATIENCE = 30_000;

/** The schema that holds PostgreSQL's extensions for all workspaces. */
export const EXTENSIONS = 'extensions';

interface Shared {
  pool: Pool;
  turns: Turns;
  /** The schema that each connection looks into now. */
  paths: WeakMap<PoolClient, string>;
}

function openShared(): Shared {
  const pool = new Pool({
    connectionString: environment('DATABASE_URL'),
    max: CONNECTIONS,
    idleTimeoutMillis: 10_000,
    connectionTimeoutMillis: PATIENCE,
    statement_timeout: 60_000,
  });
  // A connection that breaks is replaced at the next query, and whoever uses it is told there; it must not end the process.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => void client.on('error', () => undefined));
  const turns = new Turns({
    size: CONNECTIONS,
    mostOfOne: OF_ONE,
    mostWaitingOfOne: 5000,
    mostWaiting: 10_000,
    patience: PATIENCE,
  });
  return { pool, turns, paths: new WeakMap() };
}

// On globalThis, since Next.js bundles pages and routes apart, and development servers load modules again.
const kept = globalThis as { tavroConnections?: Shared };
const shared = () => (kept.tavroConnections ??= openShared());

/** Ends all connections; the next question opens others. */
export async function endConnections(): Promise<void> {
  const { pool } = kept.tavroConnections ?? {};
  delete kept.tavroConnections;
  await pool?.end();
}

/**
 * Connections that look into one schema, out of those of the process. It is a Pool for whoever asks whether it is one, as
 * Drizzle does to know whether a transaction needs a connection of its own, and has no connections itself.
 */
export function poolOf(schema: string): Pool {
  const pool = new Pool({ max: 1 });
  pool.connect = (() => connectTo(schema)) as Pool['connect'];
  pool.query = ((config: QueryConfig, values?: unknown[]) =>
    queryIn(schema, config, values)) as Pool['query'];
  return pool;
}

/** A connection of one's own until it is released; released with true, it is closed. */
async function connectTo(schema: string): Promise<PoolClient> {
  const { pool, turns, paths } = shared();
  const endTurn = await turns.take(schema).catch((caught: unknown) => {
    // In the words that pg has for the same.
    throw caught instanceof Busy
      ? new Error('timeout exceeded when trying to connect', { cause: caught })
      : caught;
  });
  let client: PoolClient;
  try {
    client = await pool.connect();
  } catch (caught) {
    endTurn();
    throw caught;
  }
  const release = client.release.bind(client);
  client.release = (destroy?: Error | boolean) => {
    client.release = release;
    release(destroy);
    endTurn();
  };
  try {
    if (paths.get(client) !== schema) {
      await client.query(`set search_path = ${schema}, ${EXTENSIONS}`);
      paths.set(client, schema);
    }
    return client;
  } catch (caught) {
    client.release(true);
    throw caught;
  }
}

async function queryIn(
  schema: string,
  config: QueryConfig,
  values?: unknown[],
): Promise<QueryResult> {
  const client = await connectTo(schema);
  let broke = true;
  try {
    const result = await client.query(config, values);
    broke = false;
    return result;
  } catch (caught) {
    // What PostgreSQL answers leaves the connection as it was, unless it says that it ends.
    broke = !(caught instanceof DatabaseError) || /^(?:57P|08)/.test(caught.code ?? '');
    throw caught;
  } finally {
    client.release(broke);
  }
}
