/** A search in a thread of its own. */
import type { Searched } from '../core/explore/search';
import type { SearchRequest } from './search-calls';
import { watchedSearch, type SearchListener } from './search-watched';
import { portOfThread } from './work-in-thread';

/** Runs a search in a new thread. Throws WorkFailed. */
export function searchInThread(
  threadFile: string,
  request: SearchRequest,
  listener?: SearchListener,
  stop?: AbortSignal,
): Promise<Searched> {
  return watchedSearch(portOfThread(threadFile), request, listener, stop);
}
