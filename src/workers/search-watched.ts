/** A search in a worker, whichever the host: what it says on the way, and its end when a script keeps it busy. */
import type { Finding } from '../core/explore/finding';
import type { Searched } from '../core/explore/search';
import { SEARCH_SILENCE } from '../core/limits';
import { TICK, WorkingTime } from '../core/sandbox/working-time';
import { SearchReplySchema, type SearchRequest } from './search-calls';

/** The search could not come to its end; the message says why, for people. */
export class SearchFailed extends Error {}

/** A worker that takes one request. */
export interface SearchPort {
  post(request: SearchRequest): void;
  onMessage(listener: (message: unknown) => void): void;
  onLost(listener: (why: unknown) => void): void;
  /** Milliseconds of processor time that it has used; null where the host cannot tell. */
  used(): number | null;
  end(): void;
}

export interface SearchListener {
  /** What is still there of what was known before; comes first. */
  again?(findings: readonly Finding[]): void;
  progress?(sessions: number, findings: readonly Finding[]): void;
}

/** Runs one search and ends its worker. `stop` ends it early: then it is rejected with SearchFailed. */
export function watchedSearch(
  port: SearchPort,
  request: SearchRequest,
  { again, progress }: SearchListener = {},
  stop?: AbortSignal,
): Promise<Searched> {
  const time = new WorkingTime(() => port.used());
  let heardAt = 0;
  let watch: ReturnType<typeof setInterval> | undefined;
  return new Promise<Searched>((resolve, reject) => {
    const fail = (why: string) => reject(new SearchFailed(why));
    stop?.addEventListener('abort', () => fail('It was stopped.'));
    if (stop?.aborted) return fail('It was stopped.');
    watch = setInterval(() => {
      if (time.look() - heardAt > SEARCH_SILENCE)
        fail('A behaviour kept the machine busy for too long; tavro test says which one.');
    }, TICK);
    port.onLost((why) => fail(String(why)));
    port.onMessage((message) => {
      heardAt = time.look();
      const reply = SearchReplySchema.safeParse(message);
      if (!reply.success) return fail(`It replied what nobody asked: ${reply.error}`);
      const { data } = reply;
      if (data.type === 'done') resolve(data.searched);
      else if (data.type === 'failed') fail(data.how);
      else if (data.type === 'again') again?.(data.findings);
      else if (data.type === 'progress') progress?.(data.sessions, data.findings);
    });
    port.post(request);
  }).finally(() => {
    clearInterval(watch);
    port.end();
  });
}
