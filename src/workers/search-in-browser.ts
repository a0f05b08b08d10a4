/** A search beside a page. */
import type { Searched } from '../core/explore/search';
import type { SearchRequest } from './search-calls';
import { watchedSearch, type SearchListener } from './search-watched';
import { portOfWorker } from './work-in-browser';

/** Runs a search in a new worker. Throws WorkFailed, also when it is stopped. */
export function searchInWorker(
  request: SearchRequest,
  listener: SearchListener,
  stop: AbortSignal,
): Promise<Searched> {
  const worker = new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' });
  return watchedSearch(portOfWorker(worker), request, listener, stop);
}
