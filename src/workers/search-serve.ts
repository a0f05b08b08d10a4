/** The worker's half of a search: a sandbox of its own, and the search over it. */
import { stillFound } from '../core/explore/again';
import { search } from '../core/explore/search';
import { heart } from '../core/sandbox/heart';
import type { Image } from '../core/sandbox/image';
import { SearchRequestSchema, type SearchReply } from './search-calls';
import { PROGRESS_EACH, stageWith } from './stage-in-worker';

export function serveSearch(
  reply: (message: SearchReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return async (message) => {
    const parsed = SearchRequestSchema.safeParse(message);
    if (!parsed.success) {
      reply({ type: 'failed', how: `not a request: ${parsed.error.message}` });
      return;
    }
    const { mentions, seed, sessions, until, known } = parsed.data;
    const alive = heart(reply);
    try {
      const { ground, stage } = await stageWith(parsed.data, alive, imageOf);
      if (known.length > 0)
        reply({
          type: 'again',
          findings: known.flatMap((one) => stillFound(one, ground, mentions, stage) ?? []),
        });
      let toldAt = Date.now();
      const searched = search(ground, mentions, stage, {
        seed,
        sessions,
        goOn(done, found) {
          const now = Date.now();
          if (now - toldAt > PROGRESS_EACH) {
            toldAt = now;
            reply({ type: 'progress', sessions: done, findings: [...found()] });
          }
          return until === null || now < until;
        },
      });
      reply({ type: 'done', searched });
    } catch (caught) {
      reply({ type: 'failed', how: String(caught) });
    }
  };
}
