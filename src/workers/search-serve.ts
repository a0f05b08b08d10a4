/** The worker's half of a search: a sandbox of its own, and the search over it. */
import { search } from '../core/explore/search';
import { heart } from '../core/sandbox/heart';
import type { Image } from '../core/sandbox/image';
import { startModule } from '../core/sandbox/quickjs';
import { needsTemporal, Sandbox } from '../core/sandbox/sandbox';
import { SearchRequestSchema, type SearchReply } from './search-calls';

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
    const { material, people, records, clock, mentions, seed, sessions, until } = parsed.data;
    const alive = heart(reply);
    try {
      const temporal = needsTemporal(material);
      const machine = new Sandbox(await startModule(), {
        temporal,
        alive,
        image: imageOf(temporal),
      });
      machine.load(material);
      const { form, tables, services } = material;
      const searched = search(
        { form, tables, services, people, records, clock },
        mentions,
        { open: (opening) => machine.open(opening), do: (step) => machine.step(step) },
        {
          seed,
          sessions,
          goOn: () => {
            alive();
            return until === null || Date.now() < until;
          },
        },
      );
      reply({ type: 'done', searched });
    } catch (caught) {
      reply({ type: 'failed', how: String(caught) });
    }
  };
}
