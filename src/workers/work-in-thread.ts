/** The port of a worker that does one piece of work in a thread of its own. */
import { Worker } from 'node:worker_threads';
import { ThreadSchema, threadTime } from './thread-time';
import type { WorkPort } from './watched';

export function portOfThread<Request>(threadFile: string): WorkPort<Request> {
  const worker = new Worker(threadFile, { workerData: 'brief' });
  let thread: number | null = null;
  return {
    post: (message) => void worker.once('online', () => worker.postMessage(message)),
    onMessage: (hear) =>
      worker.on('message', (message: unknown) => {
        const said = ThreadSchema.safeParse(message);
        if (said.success) thread = said.data.thread;
        else hear(message);
      }),
    onLost(hear) {
      worker.once('error', hear);
      worker.once('exit', () => hear('The thread of it ended.'));
    },
    used: () => (thread === null ? null : threadTime(thread)),
    end: () => void worker.terminate(),
  };
}
