/** The worker's half of a search: a sandbox of its own, and the search over it. */
import { stillFound } from '../core/explore/again';
import type { Stage } from '../core/explore/ground';
import { search } from '../core/explore/search';
import { heart } from '../core/sandbox/heart';
import type { Image } from '../core/sandbox/image';
import { startModule } from '../core/sandbox/quickjs';
import { needsTemporal, Sandbox } from '../core/sandbox/sandbox';
import { SearchRequestSchema, type SearchReply } from './search-calls';

/** Milliseconds between two words about how far a search is. */
const PROGRESS_EACH = 250;

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
    const { material, people, records, parents, clock, mentions, seed, sessions, until, known } =
      parsed.data;
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
      const ground = { form, tables, services, people, records, parents, clock };
      const stage: Stage = {
        open(opening) {
          alive();
          return machine.open(opening);
        },
        do: (step) => machine.step(step),
        checkpoint: () => machine.checkpoint(),
      };
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
