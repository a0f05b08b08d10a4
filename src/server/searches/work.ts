/** Working through the queue of searches: one chunk is one form searched with one seed. */
import { and, asc, eq, sql } from 'drizzle-orm';
import * as z from 'zod';
import { judged } from '../../core/explore/meant';
import { merged } from '../../core/explore/merged';
import { settled } from '../../core/explore/settled';
import { acceptedBy } from '../../core/compare/accepted';
import { byCause } from '../../core/compare/causes';
import type { Compared } from '../../core/compare/compare';
import { DifferenceSchema, type CompareRequest } from '../../workers/compare-calls';
import { FindingSchema, type SearchRequest } from '../../workers/search-calls';
import { WorkFailed } from '../../workers/watched';
import type { Searched } from '../../core/explore/search';
import { inWorkspace } from '../database/current-workspace';
import { transaction, type Transaction } from '../database/database';
import * as schema from '../database/schema';
import { acceptedOf } from '../releases/accepted';
import { ChangesGroundSchema, FaultsGroundSchema, groundFor } from './searches';
import type { Chunk } from './queue';

/** What a worker does with a chunk, in threads of its own. Each throws WorkFailed. */
export interface Work {
  search: (request: SearchRequest) => Promise<Searched>;
  compare: (request: CompareRequest) => Promise<Compared>;
}

interface Done {
  sessions: number;
  findings: readonly unknown[];
  says: string | null;
}

/**
 * Does a chunk and keeps what it found. Done again, as after a worker was killed, it changes nothing; a search that was
 * stopped or is gone is left alone.
 */
export async function doChunk({ schema: of, ...chunk }: Chunk, work: Work): Promise<void> {
  await inWorkspace({ name: of, schema: of }, async () => {
    const { search, form, seed } = chunk;
    const ground = await groundFor(search, form);
    if (ground === null) return;
    if (ground.what === 'changes') {
      const { compare, release } = ChangesGroundSchema.parse(ground.request);
      const done = await tried(async () => {
        const { sessions, differences } = await work.compare({ ...compare, seed });
        return { sessions, findings: differences };
      });
      const sources = { before: compare.before.sources, after: compare.after.sources };
      await keep(of, chunk, done, async (tx, chunks, sessions) => {
        const all = byCause(chunks.flatMap((one) => z.array(DifferenceSchema).parse(one)));
        const accepted = await acceptedOf(form);
        const count = all.filter((one) => acceptedBy(one, accepted, sources) === null).length;
        const row = { of: ground.of, release, sessions, count, at: new Date() };
        await tx
          .insert(schema.formChanged)
          .values({ form, ...row })
          .onConflictDoUpdate({ target: schema.formChanged.form, set: row });
      });
      return;
    }
    const { request, meant, proofs } = FaultsGroundSchema.parse(ground.request);
    const done = await tried(async () => {
      const { sessions, findings } = await work.search({ ...request, seed });
      return { sessions, findings };
    });
    await keep(of, chunk, done, async (tx, chunks, sessions) => {
      const findings = settled(
        merged(...chunks.map((one) => z.array(FindingSchema).parse(one))),
        proofs,
      );
      const row = {
        of: ground.of,
        sessions,
        wrong: judged(findings, meant).findings.filter(({ level }) => level === 'wrong').length,
        findings,
        at: new Date(),
      };
      await tx
        .insert(schema.formFound)
        .values({ form, ...row })
        .onConflictDoUpdate({ target: schema.formFound.form, set: row });
    });
  });
}

/** What a chunk came to; why, where it came to no end. */
async function tried(work: () => Promise<Omit<Done, 'says'>>): Promise<Done> {
  try {
    return { ...(await work()), says: null };
  } catch (caught) {
    if (!(caught instanceof WorkFailed)) throw caught;
    return { sessions: 0, findings: [], says: caught.message };
  }
}

/** Keeps a chunk, and with it what all chunks of its form have come to. */
async function keep(
  of: string,
  { search, form, seed }: Omit<Chunk, 'schema'>,
  done: Done,
  together: (tx: Transaction, chunks: readonly unknown[], sessions: number) => Promise<void>,
): Promise<void> {
  await transaction(
    async (tx) => {
      // Chunks of one form take turns, so that the last of them sees all others.
      await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${`found ${of} ${form}`}))`);
      await tx
        .insert(schema.searchChunk)
        .values({ search, form, seed, ...done })
        .onConflictDoNothing();
      // In the order of their seeds, whoever was done first.
      const chunks = await tx
        .select()
        .from(schema.searchChunk)
        .where(and(eq(schema.searchChunk.search, search), eq(schema.searchChunk.form, form)))
        .orderBy(asc(schema.searchChunk.seed));
      await together(
        tx,
        chunks.map(({ findings }) => findings),
        chunks.reduce((all, { sessions }) => all + sessions, 0),
      );
    },
    { again: true },
  );
}
