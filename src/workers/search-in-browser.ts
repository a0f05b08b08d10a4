/** A search beside a page. */
import type { Searched } from '../core/explore/search';
import type { SearchRequest } from './search-calls';
import { watchedSearch, type SearchListener } from './search-watched';

/** Runs a search in a new worker. Throws WorkFailed, also when it is stopped. */
export function searchInWorker(
  request: SearchRequest,
  listener: SearchListener,
  stop: AbortSignal,
): Promise<Searched> {
  const worker = new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' });
  return watchedSearch(
    {
      post: (message) => worker.postMessage(message),
      onMessage: (hear) =>
        worker.addEventListener('message', (event: MessageEvent<unknown>) => hear(event.data)),
      onLost: (hear) => worker.addEventListener('error', ({ message }) => hear(message)),
      used: () => null,
      end: () => worker.terminate(),
    },
    request,
    listener,
    stop,
  );
}
