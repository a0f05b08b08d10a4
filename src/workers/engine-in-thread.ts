/** An engine whose worker is a thread of Node.js; `scripts/build-node.mjs` bundles the thread's code into dist/. */
import { Worker } from 'node:worker_threads';
import { Engine, type Patience, type Port } from '../core/sandbox/engine';
import { ThreadSchema, threadTime } from './thread-time';

export function engineInThread(threadFile: string, patience?: Patience): Engine {
  return engineOnThreads(() => new Worker(threadFile), patience);
}

/** The same over threads that the caller starts. */
export function engineOnThreads(start: () => Worker, patience?: Patience): Engine {
  return new Engine((): Port => {
    const worker = start();
    // An idle engine keeps no process alive; a call waiting for it does, by its timer.
    worker.unref();
    let thread: number | null = null;
    let hear: (message: unknown) => void = () => undefined;
    worker.on('message', (message: unknown) => {
      const said = ThreadSchema.safeParse(message);
      if (said.success) thread = said.data.thread;
      else hear(message);
    });
    return {
      post: (message) => worker.postMessage(message),
      onMessage: (listener) => void (hear = listener),
      // Unheard, an error in a thread would end the whole process.
      onLost: (listener) => {
        worker.on('error', listener);
        worker.on('exit', listener);
      },
      used: () => (thread === null ? null : threadTime(thread)),
      end: () => void worker.terminate(),
    };
  }, patience);
}
