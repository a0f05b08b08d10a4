/** The worker's half of a comparison: a sandbox for each version, and the comparison over both. */
import { compare } from '../core/compare/compare';
import type { Image } from '../core/sandbox/image';
import { CompareRequestSchema, type CompareReply } from './compare-calls';
import { versionWith } from './stage-in-worker';
import { serveWork, tellingUntil } from './work-serve';

export function serveCompare(
  reply: (message: CompareReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return serveWork(
    CompareRequestSchema,
    reply,
    async ({ before, after, change, seed, sessions, until }, alive) => {
      const tells = tellingUntil(until);
      const compared = compare(
        await versionWith(before, alive, imageOf),
        await versionWith(after, alive, imageOf),
        {
          seed,
          sessions,
          change,
          goOn: (done, found) =>
            tells(() => reply({ type: 'progress', sessions: done, differences: [...found()] })),
        },
      );
      reply({ type: 'done', compared });
    },
  );
}
