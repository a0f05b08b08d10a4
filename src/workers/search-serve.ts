/** The worker's half of a search: a sandbox of its own, and the search over it. */
import { stillFound } from '../core/explore/again';
import { search } from '../core/explore/search';
import type { Image } from '../core/sandbox/image';
import { SearchRequestSchema, type SearchReply } from './search-calls';
import { stageWith } from './stage-in-worker';
import { serveWork, tellingUntil } from './work-serve';

export function serveSearch(
  reply: (message: SearchReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return serveWork(SearchRequestSchema, reply, async (request, alive) => {
    const { mentions, seed, sessions, until, known } = request;
    const { ground, stage } = await stageWith(request, alive, imageOf);
    if (known.length > 0)
      reply({
        type: 'again',
        findings: known.flatMap((one) => stillFound(one, ground, mentions, stage) ?? []),
      });
    const tells = tellingUntil(until);
    const searched = search(ground, mentions, stage, {
      seed,
      sessions,
      goOn: (done, found) =>
        tells(() => reply({ type: 'progress', sessions: done, findings: [...found()] })),
    });
    reply({ type: 'done', searched });
  });
}
