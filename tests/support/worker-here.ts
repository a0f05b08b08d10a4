/** Workers of engines that run here, in the test's own thread, for what is made for a browser. */
import { vi } from 'vitest';
import type { Request } from '../../src/core/sandbox/protocol';
import { serve } from '../../src/core/sandbox/serve';

export interface HereOptions {
  /** What a worker waits for before it does what it is asked. */
  before?: (message: Request) => Promise<void>;
  /** How an answer is given: at once, or as React wants it. */
  deliver?: (give: () => void) => void;
}

/** Puts such a worker in the place of the browser's; `vi.unstubAllGlobals` takes it away. */
export function stubWorker({
  before = () => Promise.resolve(),
  deliver = (give) => give(),
}: HereOptions = {}): void {
  vi.stubGlobal(
    'Worker',
    class {
      #hear: (event: { data: unknown }) => void = () => undefined;
      readonly #handle = serve((message) => deliver(() => this.#hear({ data: message })));
      addEventListener(_: 'message', hear: (event: { data: unknown }) => void) {
        this.#hear = hear;
      }
      postMessage(message: Request) {
        void before(message).then(() => this.#handle(structuredClone(message)));
      }
      terminate() {
        this.#hear = () => undefined;
      }
    },
  );
}
