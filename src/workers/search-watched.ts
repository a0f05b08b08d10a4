/** A search in a worker, whichever the host. */
import type { Finding } from '../core/explore/finding';
import type { Searched } from '../core/explore/search';
import { SearchReplySchema, type SearchReply, type SearchRequest } from './search-calls';
import { watchedWork, type WorkPort } from './watched';

export interface SearchListener {
  /** What is still there of what was known before; comes first. */
  again?(findings: readonly Finding[]): void;
  progress?(sessions: number, findings: readonly Finding[]): void;
}

/** Runs one search and ends its worker. `stop` ends it early. Throws WorkFailed. */
export function watchedSearch(
  port: WorkPort<SearchRequest>,
  request: SearchRequest,
  { again, progress }: SearchListener = {},
  stop?: AbortSignal,
): Promise<Searched> {
  return watchedWork<SearchRequest, SearchReply, Searched>(
    port,
    request,
    SearchReplySchema,
    (reply) => {
      if (reply.type === 'done') return reply.searched;
      if (reply.type === 'again') again?.(reply.findings);
      else progress?.(reply.sessions, reply.findings);
      return undefined;
    },
    stop,
  );
}
