/**
 * The queue of searches: chunks of work in PostgreSQL (pg-boss), which any number of workers on any number of machines
 * take. A chunk whose worker is gone is given to another one.
 */
import PgBoss from 'pg-boss';
import * as z from 'zod';
import { environment } from '../database/environment';

export const QUEUE = 'search';
export const NIGHTLY = 'search-nightly';
/** Seconds after which a chunk is given to another worker: far more than one takes on a busy machine. */
const EXPIRES = 15 * 60;
/** Seconds between two looks for chunks whose worker is gone. */
const MAINTENANCE = 30;

export const ChunkSchema = z.strictObject({
  /** The schema of the workspace. */
  schema: z.string().regex(/^(?:public|ws_\d+)$/),
  search: z.int(),
  form: z.string(),
  seed: z.int().positive(),
});
export type Chunk = z.infer<typeof ChunkSchema>;

/** Opens the queue; what it needs in the database is made when it is not there. */
export async function openQueue({
  expires = EXPIRES,
  maintenance = MAINTENANCE,
} = {}): Promise<PgBoss> {
  const boss = new PgBoss({
    connectionString: environment('DATABASE_URL'),
    max: 4,
    maintenanceIntervalSeconds: maintenance,
  });
  // A connection that breaks is opened again; whoever asks meanwhile is told.
  boss.on('error', (caught) => console.error(`tavro: the queue of searches: ${caught.message}`));
  await boss.start();
  for (const name of [QUEUE, NIGHTLY])
    await boss.createQueue(name, { name, retryLimit: 5, expireInSeconds: expires });
  return boss;
}

// On globalThis, since Next.js bundles pages and routes apart.
const kept = globalThis as { tavroQueue?: Promise<PgBoss> | undefined };

/** The queue as the app puts work into it. */
export function queue(): Promise<PgBoss> {
  const opened = (kept.tavroQueue ??= openQueue());
  // One that could not be opened is tried again by whoever asks next.
  opened.catch(() => delete kept.tavroQueue);
  return opened;
}

export async function closeQueue(): Promise<void> {
  const opened = kept.tavroQueue;
  delete kept.tavroQueue;
  await (await opened)?.stop({ graceful: false, wait: true });
}
