/**
 * What the queue of searches costs beside the searches: for each chunk it is taken, what it is searched with is read, what
 * was found is merged with the other chunks' and kept. In the PostgreSQL that scripts/bench.mjs starts, on the demo.
 */
import type { SearchRequest } from '../src/workers/search-calls';
import { join } from 'node:path';
import { HOME, standAlone } from '../src/server/database/current-workspace';
import { disconnect } from '../src/server/database/database';
import { ChunkSchema, closeQueue, QUEUE, queue } from '../src/server/searches/queue';
import { beginSearch } from '../src/server/searches/searches';
import { doChunk } from '../src/server/searches/work';
import type { Searched } from '../src/core/explore/search';
import { searchInThread } from '../src/workers/search-in-thread';

standAlone(HOME);
await beginSearch(null, 'deep', null);
const boss = await queue();
/** What the first chunk of each form found, which the others answer with. */
const found = new Map<string, Searched>();
let searching = 0;
let chunks = 0;
let from = 0;
for (;;) {
  const [job] = await boss.fetch(QUEUE);
  if (job === undefined) break;
  const chunk = ChunkSchema.parse(job.data);
  const known = found.get(chunk.form);
  // Those that are searched come first, seed by seed.
  if (known !== undefined && from === 0) from = performance.now();
  const compare = () => Promise.reject(new Error('nothing is compared'));
  const search = async (request: SearchRequest) => {
    if (known !== undefined) return known;
    const begun = performance.now();
    const searched = await searchInThread(join(process.cwd(), 'dist/search.thread.mjs'), request);
    searching += performance.now() - begun;
    found.set(chunk.form, searched);
    return searched;
  };
  await doChunk(chunk, { search, compare });
  await boss.complete(QUEUE, job.id);
  if (known !== undefined) chunks++;
}
const each = (performance.now() - from) / chunks;
const search = searching / found.size;
console.log(
  `${each.toFixed(1)} ms a chunk beside its search, which takes ${(search / 1000).toFixed(1)} s: ${((100 * each) / search).toFixed(1)} % (${chunks} chunks)`,
);
await closeQueue();
await disconnect();
process.exit(0);
