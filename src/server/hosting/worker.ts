/**
 * `tavro worker`: works through the queue of searches, as many chunks at once as there are cores. Any number of these run
 * on any number of machines; they give way to whatever else a machine does.
 */
import { availableParallelism, constants, setPriority } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { compareInThread } from '../../workers/compare-in-thread';
import { searchInThread } from '../../workers/search-in-thread';
import { inWorkspace } from '../database/current-workspace';
import { disconnect } from '../database/database';
import { ChunkSchema, NIGHTLY, openQueue, QUEUE } from '../searches/queue';
import { searchAtNight } from '../searches/searches';
import { doChunk } from '../searches/work';
import { listWorkspaces } from '../workspaces/registry';

const here = dirname(fileURLToPath(import.meta.url));
const [SEARCH, COMPARE] = ['search', 'compare'].map((name) => join(here, `${name}.thread.mjs`));
/** At two in the morning, UTC. */
const AT_NIGHT = '0 2 * * *';

setPriority(constants.priority.PRIORITY_LOW);
const boss = await openQueue();
await boss.schedule(NIGHTLY, AT_NIGHT);
await boss.work(NIGHTLY, async () => {
  for (const workspace of await listWorkspaces())
    if (workspace.removedAt === null && workspace.archivedAt === null)
      await inWorkspace(workspace, async () => void (await searchAtNight()));
});
for (let i = 0; i < availableParallelism(); i++)
  await boss.work(QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async ([job]) => {
    const chunk = ChunkSchema.parse(job?.data);
    await doChunk(chunk, {
      search: (request) => searchInThread(SEARCH!, request),
      compare: (request) => compareInThread(COMPARE!, request),
    });
  });
console.log('tavro: waiting for searches');

let ending = false;
async function end(): Promise<void> {
  if (ending) return;
  ending = true;
  // A chunk that is under way is given to another worker, or done again.
  await boss.stop({ graceful: false, wait: true });
  await disconnect();
  process.exit(0);
}
process.on('SIGTERM', () => void end());
process.on('SIGINT', () => void end());
