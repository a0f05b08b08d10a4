/** Doing filling-ins again beside a page. */
import {
  ReplayReplySchema,
  type EndsDifferently,
  type ReplayReply,
  type ReplayRequest,
} from './replay-calls';
import { watchedWork } from './watched';
import { portOfWorker } from './work-in-browser';

/** Does filling-ins again on two versions in a new worker. Throws WorkFailed, also when it is stopped. */
export function replayInWorker(
  request: ReplayRequest,
  progress: (done: number) => void,
  stop: AbortSignal,
): Promise<readonly EndsDifferently[]> {
  const worker = new Worker(new URL('./replay.worker.ts', import.meta.url), { type: 'module' });
  return watchedWork<ReplayRequest, ReplayReply, readonly EndsDifferently[]>(
    portOfWorker(worker),
    request,
    ReplayReplySchema,
    (reply) => {
      if (reply.type === 'done') return reply.differing;
      progress(reply.done);
      return undefined;
    },
    stop,
  );
}
