/**
 * Asking a worker, and giving its answers to who asked. Whatever text it is given, it cannot keep anybody waiting: a
 * worker that is silent for five seconds is ended and started anew, the request it was at gets the answer that was set
 * aside for that case, and the others are asked again.
 */
import { readLanguageReply } from './language-reply';

/** A worker, whatever the host makes of it. */
export interface Asking {
  post(message: unknown): void;
  onMessage(listener: (message: unknown) => void): void;
  end(): void;
}

export type Unnumbered<R> = R extends unknown ? Omit<R, 'id'> : never;

interface Waiting<R> {
  request: Unnumbered<R>;
  settle: (answer: unknown) => void;
  /** What is answered when the worker had to be ended over it. */
  otherwise: unknown;
}

/** Real milliseconds without an answer, after which a worker is ended; a new one has to load the compiler first. */
interface Patience {
  silence: number;
  start: number;
}

interface Restarting<R> {
  /** The worker was ended over this request. */
  ended(request: Unnumbered<R>): void;
  /** A worker has begun anew, and is told what the last one knew. */
  begun(send: (request: Unnumbered<R>) => void): void;
}

export class Asked<R extends { id: number }> {
  readonly #start: () => Asking;
  readonly #restarting: Restarting<R> | null;
  readonly #patience: Patience;
  /** In the order in which they were asked, which is that in which they are answered. */
  readonly #waiting = new Map<number, Waiting<R>>();
  #worker: Asking;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #warm = false;
  #ids = 0;

  constructor(
    start: () => Asking,
    restarting: Restarting<R> | null = null,
    patience: Patience = { silence: 5000, start: 60_000 },
  ) {
    this.#start = start;
    this.#restarting = restarting;
    this.#patience = patience;
    this.#worker = this.#begin();
  }

  /** Asks; `otherwise` is the answer when the worker has to be ended over it. */
  ask<T>(request: Unnumbered<R>, otherwise: T): Promise<T> {
    return new Promise((resolve) => {
      // Both ends are built together; what comes back is what the worker's function of that name gives.
      this.#send({ request, settle: resolve as (answer: unknown) => void, otherwise });
    });
  }

  close(): void {
    clearTimeout(this.#timer);
    this.#worker.end();
  }

  #send(waiting: Waiting<R>): void {
    const id = ++this.#ids;
    this.#waiting.set(id, waiting);
    if (this.#waiting.size === 1) this.#wait();
    this.#worker.post({ ...waiting.request, id });
  }

  #begin(): Asking {
    const worker = this.#start();
    this.#warm = false;
    worker.onMessage((message) => {
      if (worker !== this.#worker) return;
      const { id, answer } = readLanguageReply(message);
      this.#warm = true;
      this.#waiting.get(id)?.settle(answer);
      this.#waiting.delete(id);
      this.#wait();
    });
    return worker;
  }

  #wait(): void {
    clearTimeout(this.#timer);
    if (this.#waiting.size > 0)
      this.#timer = setTimeout(
        () => this.#restart(),
        this.#warm ? this.#patience.silence : this.#patience.start,
      );
  }

  #restart(): void {
    this.#worker.end();
    const [culprit, ...others] = this.#waiting.values();
    this.#waiting.clear();
    this.#worker = this.#begin();
    if (culprit === undefined) return;
    this.#restarting?.ended(culprit.request);
    this.#restarting?.begun((request) =>
      this.#send({ request, settle: () => undefined, otherwise: null }),
    );
    culprit.settle(culprit.otherwise);
    for (const other of others) this.#send(other);
  }
}
