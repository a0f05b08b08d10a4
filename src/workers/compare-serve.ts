/** The worker's half of a comparison: a sandbox for each version, and the comparison over both. */
import { compare } from '../core/compare/compare';
import type { Version } from '../core/compare/version';
import type { Image } from '../core/sandbox/image';
import { CompareRequestSchema, type CompareReply } from './compare-calls';
import { stageWith } from './stage-in-worker';
import { serveWork, tellingUntil } from './work-serve';

export function serveCompare(
  reply: (message: CompareReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return serveWork(
    CompareRequestSchema,
    reply,
    async ({ before, after, change, seed, sessions, until }, alive) => {
      const versionOf = async (of: typeof before): Promise<Version> => ({
        ...(await stageWith(of, alive, imageOf)),
        mentions: of.mentions,
        sources: of.sources,
      });
      const tells = tellingUntil(until);
      const compared = compare(await versionOf(before), await versionOf(after), {
        seed,
        sessions,
        change,
        goOn: (done, found) =>
          tells(() => reply({ type: 'progress', sessions: done, differences: [...found()] })),
      });
      reply({ type: 'done', compared });
    },
  );
}
