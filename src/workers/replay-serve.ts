/** The worker's half of doing filling-ins again: a sandbox for each version. */
import { Replaying } from '../core/compare/replayed';
import type { Image } from '../core/sandbox/image';
import { ReplayRequestSchema, type EndsDifferently, type ReplayReply } from './replay-calls';
import { versionWith } from './stage-in-worker';
import { serveWork, tellingUntil } from './work-serve';

export function serveReplay(
  reply: (message: ReplayReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return serveWork(ReplayRequestSchema, reply, async ({ before, after, done }, alive) => {
    const replaying = new Replaying({
      before: await versionWith(before, alive, imageOf),
      after: await versionWith(after, alive, imageOf),
    });
    const tells = tellingUntil(null);
    const differing: EndsDifferently[] = [];
    for (const [at, one] of done.entries()) {
      const differences = replaying.differences(one);
      if (differences.length > 0) differing.push({ at, differences });
      tells(() => reply({ type: 'progress', done: at + 1 }));
    }
    reply({ type: 'done', differing: differing as never });
  });
}
