/** Working through the queue of searches: one chunk is one form searched with one seed. */
import { and, asc, eq, sql } from 'drizzle-orm';
import * as z from 'zod';
import { judged } from '../../core/explore/meant';
import { merged } from '../../core/explore/merged';
import { settled } from '../../core/explore/settled';
import type { Finding } from '../../core/explore/finding';
import { FindingSchema, type SearchRequest } from '../../workers/search-calls';
import { WorkFailed } from '../../workers/watched';
import type { Searched } from '../../core/explore/search';
import { inWorkspace } from '../database/current-workspace';
import { transaction } from '../database/database';
import * as schema from '../database/schema';
import { groundFor, GroundSchema } from './searches';
import type { Chunk } from './queue';

export type Search = (request: SearchRequest) => Promise<Searched>;

/**
 * Does a chunk and keeps what it found. Done again, as after a worker was killed, it changes nothing; a search that was
 * stopped or is gone is left alone.
 */
export async function doChunk({ schema: of, ...chunk }: Chunk, search: Search): Promise<void> {
  await inWorkspace({ name: of, schema: of }, async () => {
    const { search: id, form, seed } = chunk;
    const ground = await groundFor(id, form);
    if (ground === null) return;
    const { request, meant, proofs } = GroundSchema.parse(ground.request);
    let done: { sessions: number; findings: readonly Finding[]; says: string | null };
    try {
      const { sessions, findings } = await search({ ...request, seed });
      done = { sessions, findings, says: null };
    } catch (caught) {
      if (!(caught instanceof WorkFailed)) throw caught;
      done = { sessions: 0, findings: [], says: caught.message };
    }
    await transaction(
      async (tx) => {
        // Chunks of one form take turns, so that the last of them sees all others.
        await tx.execute(sql`select pg_advisory_xact_lock(hashtext(${`found ${of} ${form}`}))`);
        await tx
          .insert(schema.searchChunk)
          .values({ search: id, form, seed, ...done })
          .onConflictDoNothing();
        const chunks = await tx
          .select()
          .from(schema.searchChunk)
          .where(and(eq(schema.searchChunk.search, id), eq(schema.searchChunk.form, form)))
          .orderBy(asc(schema.searchChunk.seed));
        // In the order of their seeds, whoever was done first.
        const findings = settled(
          merged(...chunks.map((one) => z.array(FindingSchema).parse(one.findings))),
          proofs,
        );
        const row = {
          of: ground.of,
          sessions: chunks.reduce((all, one) => all + one.sessions, 0),
          wrong: judged(findings, meant).findings.filter(({ level }) => level === 'wrong').length,
          findings,
          at: new Date(),
        };
        await tx
          .insert(schema.formFound)
          .values({ form, ...row })
          .onConflictDoUpdate({ target: schema.formFound.form, set: row });
      },
      { again: true },
    );
  });
}
