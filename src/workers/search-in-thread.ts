/** A search in a thread of its own. */
import { Worker } from 'node:worker_threads';
import type { Searched } from '../core/explore/search';
import type { SearchRequest } from './search-calls';
import { watchedSearch, type SearchListener } from './search-watched';
import { ThreadSchema, threadTime } from './thread-time';

/** Runs a search in a new thread. Throws SearchFailed. */
export function searchInThread(
  threadFile: string,
  request: SearchRequest,
  listener?: SearchListener,
  stop?: AbortSignal,
): Promise<Searched> {
  const worker = new Worker(threadFile, { workerData: 'brief' });
  let thread: number | null = null;
  return watchedSearch(
    {
      post: (message) => void worker.once('online', () => worker.postMessage(message)),
      onMessage: (hear) =>
        worker.on('message', (message: unknown) => {
          const said = ThreadSchema.safeParse(message);
          if (said.success) thread = said.data.thread;
          else hear(message);
        }),
      onLost(hear) {
        worker.once('error', hear);
        worker.once('exit', () => hear('The thread of the search ended.'));
      },
      used: () => (thread === null ? null : threadTime(thread)),
      end: () => void worker.terminate(),
    },
    request,
    listener,
    stop,
  );
}
