/** The port of a worker beside a page that does one piece of work. */
import type { WorkPort } from './watched';

export const portOfWorker = <Request>(worker: Worker): WorkPort<Request> => ({
  post: (message) => worker.postMessage(message),
  onMessage: (hear) =>
    worker.addEventListener('message', (event: MessageEvent<unknown>) => hear(event.data)),
  onLost: (hear) => worker.addEventListener('error', ({ message }) => hear(message)),
  used: () => null,
  end: () => worker.terminate(),
});
