/** A search in a thread of its own, which is ended when a script keeps it busy. */
import { Worker } from 'node:worker_threads';
import type { Searched } from '../core/explore/search';
import { SEARCH_SILENCE } from '../core/limits';
import { TICK, WorkingTime } from '../core/sandbox/working-time';
import { SearchReplySchema, type SearchRequest } from './search-calls';
import { ThreadSchema, threadTime } from './thread-time';

/** The search could not come to its end; the message says why, for people. */
export class SearchFailed extends Error {}

/** Runs a search in a new thread. Throws SearchFailed. */
export function searchInThread(threadFile: string, request: SearchRequest): Promise<Searched> {
  const worker = new Worker(threadFile, { workerData: 'brief' });
  let thread: number | null = null;
  const time = new WorkingTime(() => (thread === null ? null : threadTime(thread)));
  let heardAt = 0;
  return new Promise<Searched>((resolve, reject) => {
    const watch = setInterval(() => {
      if (time.look() - heardAt > SEARCH_SILENCE)
        reject(
          new SearchFailed(
            'A behaviour kept the machine busy for too long; tavro test says which one.',
          ),
        );
    }, TICK);
    worker.once('error', (error) => reject(new SearchFailed(String(error))));
    worker.once('exit', () => {
      clearInterval(watch);
      reject(new SearchFailed('The thread of the search ended.'));
    });
    worker.on('message', (message: unknown) => {
      heardAt = time.look();
      const said = ThreadSchema.safeParse(message);
      if (said.success) {
        thread = said.data.thread;
        return;
      }
      const reply = SearchReplySchema.safeParse(message);
      if (!reply.success) reject(new SearchFailed(`It replied what nobody asked: ${reply.error}`));
      else if (reply.data.type === 'done') resolve(reply.data.searched);
      else if (reply.data.type === 'failed') reject(new SearchFailed(reply.data.how));
    });
    worker.once('online', () => worker.postMessage(request));
  }).finally(() => void worker.terminate());
}
