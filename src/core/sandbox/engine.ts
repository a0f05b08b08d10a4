/**
 * A session that cannot hang its host. The sandbox runs in a worker; when a step takes too long in real time or the
 * machine dies, the worker is ended, a new one does everything again while telling where it is, the script it got
 * stuck in is taken out with its line named, and the session goes on. Nothing a person did is lost, since the engine
 * keeps the opening and the steps.
 */
import { words } from '../wire/failures';
import type { Material } from '../session/session';
import type { Answer, Opening, TimedStep } from '../session/step';
import { ReplySchema, type Request } from './protocol';
import { allowanceFor, rowsIn } from './allowance';
import type { Listens } from './sandbox';

/** A worker, whatever the host makes of it. */
export interface Port {
  post(message: Request): void;
  onMessage(listener: (message: unknown) => void): void;
  end(): void;
}

/** Real milliseconds that an engine waits. */
export interface Patience {
  /** Without an answer, after which a worker is ended. */
  answer: number;
  /** The same while looking for the culprit, since its last whereabouts. */
  watched: number;
  /** More for a fresh worker, which has to compile and boot first. */
  boot: number;
}

const PATIENCE: Patience = { answer: 800, watched: 500, boot: 8000 };

type Unnumbered<R> = R extends unknown ? Omit<R, 'id'> : never;
type Outcome = { ok: true; answers: Answer[]; listens: Listens | null } | { ok: false; at: { behaviour: string; line: number } | null };

export class Engine {
  readonly #spawn: () => Port;
  readonly #patience: Patience;
  #port: Port | null = null;
  #ids = 0;
  #waiting: { id: number; settle: (outcome: Outcome) => void; fail: (how: string) => void; sign: (at: { behaviour: string; line: number }) => void } | null = null;
  #material: Material | null = null;
  #listens: Listens = { input: [], focus: [], blur: [] };
  #opening: Opening | null = null;
  #steps: TimedStep[] = [];
  /** Calls are done one after the other. */
  #last: Promise<unknown> = Promise.resolve();

  constructor(spawn: () => Port, patience = PATIENCE) {
    this.#spawn = spawn;
    this.#patience = patience;
  }

  get listens(): Listens {
    return this.#listens;
  }

  /** Loads a form with its scripts. Behaviours that get stuck at their top level are taken out. */
  load(material: Material): Promise<void> {
    return this.#inTurn(async () => {
      this.#material = material;
      this.#opening = null;
      this.#steps = [];
      await this.#load();
    });
  }

  /** Opens the form and does steps: the answer of the opening, then one for each step. */
  play(opening: Opening, steps: readonly TimedStep[]): Promise<Answer[]> {
    return this.#inTurn(async () => {
      this.#opening = opening;
      this.#steps = [...steps];
      return this.#playAll();
    });
  }

  /** Does one step more. */
  step(step: TimedStep): Promise<Answer> {
    return this.#inTurn(async () => {
      if (this.#opening === null) throw new Error('the form is not open');
      this.#steps.push(step);
      const outcome = await this.#ask({ do: 'step', step }, this.#patience.answer + this.#allowance());
      if (outcome.ok) return outcome.answers[0]!;
      await this.#takeOutCulprit();
      return (await this.#playAll()).at(-1)!;
    });
  }

  close(): void {
    this.#port?.end();
    this.#port = null;
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const result = this.#last.then(work);
    this.#last = result.catch(() => undefined);
    return result;
  }

  /** More time for sessions with many rows. */
  #allowance(): number {
    return allowanceFor(rowsIn(this.#opening!) + this.#steps.reduce((rows, step) => rows + rowsIn(step), 0));
  }

  async #load(): Promise<void> {
    for (;;) {
      const outcome = await this.#ask({ do: 'load', material: this.#material!, watched: false }, this.#patience.answer + this.#patience.boot);
      if (outcome.ok) {
        this.#listens = outcome.listens!;
        return;
      }
      await this.#takeOutCulprit();
    }
  }

  async #playAll(): Promise<Answer[]> {
    const { length } = this.#material!.scripts;
    for (let tries = 0; tries <= length; tries++) {
      const outcome = await this.#ask({ do: 'play', opening: this.#opening!, steps: this.#steps }, this.#patience.answer + 20 * this.#steps.length + this.#allowance());
      if (outcome.ok) return outcome.answers;
      await this.#takeOutCulprit();
    }
    throw new Error('the session could not be brought back');
  }

  /** Does all again in a watched machine until it gets stuck, takes that script out, and loads what is left. */
  async #takeOutCulprit(): Promise<void> {
    const material = this.#material!;
    let outcome = await this.#ask({ do: 'load', material, watched: true }, this.#patience.boot, this.#patience.watched);
    if (outcome.ok && this.#opening !== null) {
      outcome = await this.#ask({ do: 'play', opening: this.#opening, steps: this.#steps }, this.#patience.answer + 20 * this.#steps.length + this.#allowance(), this.#patience.watched);
    }
    const culprit = outcome.ok ? null : outcome.at;
    if (culprit !== null) {
      const scripts = material.scripts.map((script) =>
        script.name === culprit.behaviour
          ? { ...script, code: null, failure: { code: 'stuck' as const, says: words.stuck, line: culprit.line } }
          : script,
      );
      this.#material = { ...material, scripts };
    }
    await this.#load();
  }

  #ask(request: Unnumbered<Request>, patience: number, patienceOnceSeen = patience): Promise<Outcome> {
    const id = ++this.#ids;
    return new Promise((resolve, reject) => {
      let at: { behaviour: string; line: number } | null = null;
      let timer: ReturnType<typeof setTimeout>;
      const done = (outcome: Outcome) => {
        clearTimeout(timer);
        this.#waiting = null;
        resolve(outcome);
      };
      const giveUp = () => {
        this.#discard();
        done({ ok: false, at });
      };
      timer = setTimeout(giveUp, patience);
      this.#waiting = {
        id,
        settle: (outcome) => {
          if (!outcome.ok) this.#discard();
          done(outcome.ok ? outcome : { ok: false, at });
        },
        fail: (how) => {
          clearTimeout(timer);
          this.#waiting = null;
          this.#discard();
          reject(new Error(how));
        },
        sign: (place) => {
          at = place;
          clearTimeout(timer);
          timer = setTimeout(giveUp, patienceOnceSeen);
        },
      };
      this.#connect().post({ ...request, id } as Request);
    });
  }

  #connect(): Port {
    if (this.#port !== null) return this.#port;
    const port = this.#spawn();
    port.onMessage((message) => {
      if (this.#port === port) this.#hear(message);
    });
    this.#port = port;
    return port;
  }

  #hear(message: unknown): void {
    const reply = ReplySchema.parse(message);
    const waiting = this.#waiting;
    if (waiting === null) return;
    if (reply.type === 'at') return waiting.sign(reply);
    if (reply.id !== waiting.id) return;
    switch (reply.type) {
      case 'listens':
        return waiting.settle({ ok: true, answers: [], listens: reply.listens });
      case 'answers':
        return waiting.settle({ ok: true, answers: reply.answers, listens: null });
      case 'died':
        return waiting.settle({ ok: false, at: null });
      case 'failed':
        return waiting.fail(reply.how);
    }
  }

  #discard(): void {
    this.#port?.end();
    this.#port = null;
  }
}
