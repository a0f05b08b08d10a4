/** The worker's half of doing filling-ins again: a sandbox for each version. */
import { Replaying } from '../core/compare/replayed';
import type { Image } from '../core/sandbox/image';
import { ReplayRequestSchema, type EndsDifferently, type ReplayReply } from './replay-calls';
import { stageWith } from './stage-in-worker';
import { serveWork, tellingUntil } from './work-serve';

export function serveReplay(
  reply: (message: ReplayReply) => void,
  imageOf: (temporal: boolean) => Image | null = () => null,
): (message: unknown) => Promise<void> {
  return serveWork(ReplayRequestSchema, reply, async ({ before, after, done }, alive) => {
    const playedIn = async (of: typeof before) => {
      // What must always hold says nothing to people.
      const untraced = { ...of.material, traced: false, invariants: false };
      const { ground, stage } = await stageWith({ ...of, material: untraced }, alive, imageOf);
      return { form: ground.form, stage };
    };
    const replaying = new Replaying({
      before: await playedIn(before),
      after: await playedIn(after),
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
