/** An engine as a page starts it. */
import { Engine, type Port } from '../core/sandbox/engine';

export function engineInWorker(): Engine {
  return new Engine((): Port => {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
    return {
      post: (message) => worker.postMessage(message),
      onMessage: (listener) =>
        worker.addEventListener('message', (event: MessageEvent<unknown>) => listener(event.data)),
      onLost: (listener) => worker.addEventListener('error', listener),
      end: () => worker.terminate(),
    };
  });
}
