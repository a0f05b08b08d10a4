/** The worker's half of a comparison: a sandbox for each version, and the comparison over both. */
import { compare } from '../core/compare/compare';
import type { Version } from '../core/compare/version';
import { heart } from '../core/sandbox/heart';
import type { Image } from '../core/sandbox/image';
import { CompareRequestSchema, type CompareReply } from './compare-calls';
import { PROGRESS_EACH, stageWith } from './stage-in-worker';

export function serveCompare(
  reply: (message: CompareReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return async (message) => {
    const parsed = CompareRequestSchema.safeParse(message);
    if (!parsed.success) {
      reply({ type: 'failed', how: `not a request: ${parsed.error.message}` });
      return;
    }
    const { before, after, change, seed, sessions, until } = parsed.data;
    const alive = heart(reply);
    const versionOf = async (of: typeof before): Promise<Version> => ({
      ...(await stageWith(of, alive, imageOf)),
      mentions: of.mentions,
      sources: of.sources,
    });
    try {
      let toldAt = Date.now();
      const compared = compare(await versionOf(before), await versionOf(after), {
        seed,
        sessions,
        change,
        goOn(done, found) {
          const now = Date.now();
          if (now - toldAt > PROGRESS_EACH) {
            toldAt = now;
            reply({ type: 'progress', sessions: done, differences: [...found()] });
          }
          return until === null || now < until;
        },
      });
      reply({ type: 'done', compared });
    } catch (caught) {
      reply({ type: 'failed', how: String(caught) });
    }
  };
}
