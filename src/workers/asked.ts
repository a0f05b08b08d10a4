/**
 * Asking a worker, and giving its answers to who asked. Whatever text it is given, it cannot keep anybody waiting: a
 * worker that is silent for five seconds is ended and restarted, and asked the same again with ten times the patience,
 * since the machine may only have been busy. Silent once more, the question gets the answer that was set aside for that
 * case. The others are asked again. Time counts where the one who watches was on time himself (`working-time.ts`).
 */
import type { Remote } from 'comlink';
import { TICK, WorkingTime } from '../core/sandbox/working-time';

/** Functions that a worker offers, by name. */
type Offered = Readonly<Record<string, (...given: never[]) => unknown>>;

type Answer<F extends Offered, Name extends keyof F> = Awaited<ReturnType<F[Name]>>;

/** A worker, whatever the host makes of it. */
export interface Asking<F extends Offered> {
  calls: Remote<F>;
  end(): void;
}

export interface Question<F extends Offered> {
  call: keyof F & string;
  given: readonly unknown[];
}

interface WaitingCall<F extends Offered> extends Question<F> {
  settle: (answer: unknown) => void;
  fail: (reason: unknown) => void;
  /** What is answered when the worker had to be ended over it, twice. */
  otherwise: unknown;
  isAgain: boolean;
}

/** How many times as long a question may take that is asked again. */
const ALONE = 10;

/** Milliseconds without an answer, after which a worker is ended; a new one has to load the compiler first. */
interface Patience {
  silence: number;
  start: number;
}

interface Restarting<F extends Offered> {
  /** The worker was ended over this question. */
  ended(question: Question<F>): void;
  /** What a worker that begins again is told first: what the last one knew. */
  begun(): readonly Question<F>[];
}

export class PatientWorker<F extends Offered> {
  /** In the order in which they were asked, which is that in which they are answered. */
  readonly #waiting = new Set<WaitingCall<F>>();
  #worker: Asking<F>;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #warm = false;

  constructor(
    private readonly start: () => Asking<F>,
    private readonly restarting: Restarting<F> | null = null,
    private readonly patience: Patience = { silence: 5000, start: 60_000 },
  ) {
    this.#worker = start();
  }

  /** Asks; `otherwise` is the answer when the worker has to be ended over it. Rejects where the worker's function throws. */
  ask<Name extends keyof F & string>(
    call: Name,
    given: Parameters<F[Name]>,
    otherwise: Answer<F, Name>,
  ): Promise<Answer<F, Name>> {
    return new Promise((resolve, reject) => {
      this.#send({
        call,
        given,
        settle: resolve as (answer: unknown) => void,
        fail: reject,
        otherwise,
        isAgain: false,
      });
    });
  }

  close(): void {
    clearTimeout(this.#timer);
    this.#worker.end();
  }

  #send(waiting: WaitingCall<F>): void {
    this.#waiting.add(waiting);
    if (this.#waiting.size === 1) this.#wait();
    const worker = this.#worker;
    const call = worker.calls[waiting.call] as (...given: readonly unknown[]) => Promise<unknown>;
    const over = (settle: (answer: unknown) => void) => (answer: unknown) => {
      if (worker !== this.#worker) return;
      this.#warm = true;
      this.#waiting.delete(waiting);
      this.#wait();
      settle(answer);
    };
    void call(...waiting.given).then(over(waiting.settle), over(waiting.fail));
  }

  #wait(): void {
    clearTimeout(this.#timer);
    const [first] = this.#waiting;
    if (first === undefined) return;
    const { silence, start } = this.patience;
    const patience = (first.isAgain ? ALONE * silence : silence) + (this.#warm ? 0 : start);
    const working = new WorkingTime(() => null);
    const look = () => {
      if (working.look() > patience) this.#restart();
      else this.#timer = setTimeout(look, TICK);
    };
    this.#timer = setTimeout(look, TICK);
  }

  #restart(): void {
    this.#worker.end();
    const [culprit, ...others] = this.#waiting;
    this.#waiting.clear();
    this.#worker = this.start();
    this.#warm = false;
    if (culprit === undefined) return;
    if (culprit.isAgain) this.restarting?.ended(culprit);
    for (const question of this.restarting?.begun() ?? [])
      this.#send({
        ...question,
        settle: () => undefined,
        fail: () => undefined,
        otherwise: undefined,
        isAgain: true,
      });
    if (culprit.isAgain) culprit.settle(culprit.otherwise);
    else this.#send({ ...culprit, isAgain: true });
    for (const other of others) this.#send(other);
  }
}
