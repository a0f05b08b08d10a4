/**
 * A session that cannot hang its host. The sandbox runs in a worker; when a step takes too long in real time or the
 * machine dies, the worker is ended, a new one does everything again while telling where it is, the script it got
 * stuck in is taken out with its line named, and the session goes on. Nothing a person did is lost, since the engine
 * keeps the opening and the steps.
 */
import type { Line } from '../wire/line';
import type { CompiledScript } from '../session/ties';
import { words } from '../wire/failures';
import type { Material } from '../session/session';
import type { Answer, Opening, TimedStep } from '../session/step';
import type { Request } from './protocol';
import { readReply, type BriefAnswer } from './reply';
import { allowanceFor, allowanceForTables, rowsIn } from './allowance';
import type { Inspection, Wanted } from './inspector';
import type { Listens } from './sandbox';

/** A worker, whatever the host makes of it. */
export interface Port {
  post(message: Request): void;
  onMessage(listener: (message: unknown) => void): void;
  /** Its code could not be loaded, or it is gone; the reason is for the log alone. */
  onLost(listener: (why: unknown) => void): void;
  end(): void;
}

/** Real milliseconds that an engine waits. */
export interface Patience {
  /** Without a sign of life, after which a worker is ended. A machine gives signs wherever its scripts still yield. */
  silence: number;
  /** The same while looking for the culprit, since its last whereabouts. */
  watched: number;
  /** More for a fresh worker, which has to start first. */
  boot: number;
  /** For one step, however alive the machine is: every run of it may be within its fuel. */
  step: number;
}

const PATIENCE: Patience = { silence: 700, watched: 300, boot: 10_000, step: 6000 };

/** More for each step of several that are done at once. */
const PER_STEP = 20;

/** How many times as long running in detail may take. */
const INSPECTING = 4;

/** A session that ran again did not come to its end in time: something asked on the way, or turned round, never ends. */
export class TookTooLong extends Error {
  constructor() {
    super('That took too long and was stopped.');
  }
}

/** A worker whose code cannot be loaded, as from a server that is out of reach. Asked again, the engine starts another. */
export class CannotStart extends Error {
  constructor(cause: unknown) {
    super('What the form runs in could not be loaded.', { cause });
  }
}

/** Where a script was when it got stuck. */
export interface Stuck {
  /** Or the shared module, where its top level did. */
  behaviour: string;
  line: Line;
}

type Unnumbered<R> = R extends unknown ? Omit<R, 'id'> : never;
type Done = Partial<{
  answers: (Answer | BriefAnswer)[];
  listens: Listens;
  inspection: Inspection;
  reached: number[];
}>;
type Outcome = ({ ok: true } & Done) | { ok: false; at: Stuck | null };

export class Engine {
  readonly #spawn: () => Port;
  readonly #patience: Patience;
  #port: Port | null = null;
  /** It has been heard of. */
  #isAlive = false;
  /** It has the material. */
  #isLoaded = false;
  /** A worker that starts while another has been silent for half its patience. */
  #spare: Port | null = null;
  #ids = 0;
  #waiting: {
    id: number;
    settle: (outcome: Outcome) => void;
    fail: (why: Error) => void;
    sign: (at: Stuck | null) => void;
  } | null = null;
  #material: Material | null = null;
  #listens: Listens = { input: [], focus: [], blur: [] };
  #opening: Opening | null = null;
  #steps: TimedStep[] = [];
  #suspects: Stuck[] = [];
  #stuck: Stuck[] = [];
  #closed = false;
  /** Calls are done one after the other. */
  #last: Promise<unknown> = Promise.resolve();

  constructor(spawn: () => Port, patience = PATIENCE) {
    this.#spawn = spawn;
    this.#patience = patience;
  }

  get listens(): Listens {
    return this.#listens;
  }

  /** The behaviours that got stuck since the form was loaded, and are out. */
  get stuck(): readonly Stuck[] {
    return this.#stuck;
  }

  /**
   * Loads a form with its scripts. Behaviours that get stuck at their top level are taken out. `suspects` got stuck
   * before: when anything does again, they are not looked for but taken out at once.
   */
  load(material: Material, suspects: readonly Stuck[] = []): Promise<void> {
    return this.#inTurn(async () => {
      this.#material = material;
      this.#opening = null;
      this.#steps = [];
      this.#suspects = [...suspects];
      this.#stuck = [];
      await this.#load();
    });
  }

  /** Opens the form and does steps: the answer of the opening, then one for each step. */
  play(opening: Opening, steps: readonly TimedStep[]): Promise<Answer[]> {
    return this.#inTurn(async () => {
      this.#opening = opening;
      this.#steps = [...steps];
      return this.#playAll(false) as Promise<Answer[]>;
    });
  }

  /** The same, answered in brief: for whoever saves what comes out. */
  playInBrief(opening: Opening, steps: readonly TimedStep[]): Promise<BriefAnswer[]> {
    return this.#inTurn(async () => {
      this.#opening = opening;
      this.#steps = [...steps];
      return this.#playAll(true);
    });
  }

  /** Does one step more; one that is refused by a rejection was not done. Throws CannotStart. */
  step(step: TimedStep): Promise<Answer> {
    return this.#inTurn(async () => {
      if (this.#opening === null) throw new Error('the form is not open');
      this.#steps.push(step);
      try {
        return await this.#doLast();
      } catch (caught) {
        this.#steps.pop();
        throw caught;
      }
    });
  }

  async #doLast(): Promise<Answer> {
    if (this.#isLoaded) {
      const outcome = await this.#ask(
        { do: 'step', step: this.#steps.at(-1)! },
        this.#patience.silence + this.#allowance(),
        this.#patience.step + this.#allowance(),
      );
      if (outcome.ok) return outcome.answers![0] as Answer;
      await this.#takeOutCulprit(outcome.at);
    }
    return (await this.#playAll(false)).at(-1) as Answer;
  }

  /**
   * Runs a session again and says what is wanted of it. The material has to be compiled for details. Throws
   * TookTooLong; then the next question is answered by a machine that starts anew.
   */
  inspect(opening: Opening, steps: readonly TimedStep[], wanted: Wanted): Promise<Inspection> {
    return this.#inTurn(async () => {
      this.#opening = opening;
      this.#steps = [...steps];
      await this.#loadIfLost();
      const allowance = this.#allowance();
      const outcome = await this.#ask(
        { do: 'inspect', opening, steps: [...steps], wanted },
        INSPECTING * this.#patience.silence + allowance,
        INSPECTING * (this.#patience.step + PER_STEP * steps.length + allowance),
      );
      if (outcome.ok) return outcome.inspection!;
      throw new TookTooLong();
    });
  }

  /**
   * Plays a session with a mutant switched on, 0 for none, and says which mutants up to `reachedOf` it reached. The
   * material has to be compiled with its mutants. Throws TookTooLong where the mutant keeps the machine busy.
   */
  tryMutant(
    opening: Opening,
    steps: readonly TimedStep[],
    mutant: number,
    reachedOf: number,
  ): Promise<{ answers: Answer[]; reached: number[] }> {
    return this.#inTurn(async () => {
      this.#opening = opening;
      this.#steps = [...steps];
      await this.#loadIfLost();
      const allowance = this.#allowance();
      const outcome = await this.#ask(
        { do: 'try', opening, steps: [...steps], mutant, reachedOf },
        this.#patience.silence + allowance,
        this.#patience.step + PER_STEP * steps.length + allowance,
      );
      if (outcome.ok) return { answers: outcome.answers as Answer[], reached: outcome.reached! };
      throw new TookTooLong();
    });
  }

  /** Starts the worker, so that it is there when something is asked of it. */
  wake(): void {
    this.#connect();
  }

  /** Ends the worker. Whoever still waits is refused. */
  close(): void {
    this.#closed = true;
    this.#waiting?.fail(new Error('the engine was closed'));
    this.#discard();
    this.#spare?.end();
    this.#spare = null;
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const result = this.#last.then(work);
    this.#last = result.catch(() => undefined);
    return result;
  }

  /** More time for sessions with many rows. */
  #allowance(): number {
    return this.#opening === null
      ? 0
      : allowanceFor(
          rowsIn(this.#opening) + this.#steps.reduce((rows, step) => rows + rowsIn(step), 0),
        );
  }

  async #load(): Promise<void> {
    for (let tries = this.#material!.scripts.length; tries >= 0; tries--) {
      const outcome = await this.#ask(
        { do: 'load', material: this.#material!, watched: false },
        this.#patience.boot,
        this.#patience.boot + this.#patience.step,
      );
      if (outcome.ok) {
        this.#listens = outcome.listens!;
        return;
      }
      await this.#takeOutCulprit(outcome.at);
    }
    throw new Error('the scripts could not be loaded');
  }

  /** The worker that had the material is gone, and another one has none yet. */
  async #loadIfLost(): Promise<void> {
    if (!this.#isLoaded) await this.#load();
  }

  async #playAll(brief: boolean): Promise<(Answer | BriefAnswer)[]> {
    for (let tries = this.#material!.scripts.length; tries >= 0; tries--) {
      const outcome = await this.#play(false, brief);
      if (outcome.ok) return outcome.answers!;
      await this.#takeOutCulprit(outcome.at);
    }
    throw new Error('the session could not be brought back');
  }

  async #play(watched: boolean, brief: boolean): Promise<Outcome> {
    await this.#loadIfLost();
    const allowance = this.#allowance();
    const silence = (watched ? this.#patience.watched : this.#patience.silence) + allowance;
    return this.#ask(
      { do: 'play', opening: this.#opening!, steps: this.#steps, brief },
      silence,
      this.#patience.step + PER_STEP * this.#steps.length + allowance,
    );
  }

  /**
   * Takes out the script that got stuck, and loads what is left: a suspect, where there is one, else the one found by
   * doing all again in a watched machine until it gets stuck there too.
   */
  async #takeOutCulprit(at: Stuck | null): Promise<void> {
    const [known] = this.#suspects.splice(0, 1);
    const culprit = known ?? at ?? (await this.#findCulprit());
    if (culprit !== null) {
      this.#stuck.push(culprit);
      this.#material = without(this.#material!, culprit);
    }
    await this.#load();
  }

  async #findCulprit(): Promise<Stuck | null> {
    const loaded = await this.#ask(
      { do: 'load', material: this.#material!, watched: true },
      this.#patience.boot,
      this.#patience.boot + this.#patience.step,
      this.#patience.watched + allowanceForTables(this.#material!.tables),
    );
    if (!loaded.ok) return loaded.at;
    if (this.#opening === null) return null;
    const played = await this.#play(true, true);
    return played.ok ? null : played.at;
  }

  /** Asks the worker. It is ended when it is silent for too long, or takes `most` in all; `silenceOnceSeen` is the patience after its first sign. */
  #ask(
    request: Unnumbered<Request>,
    silence: number,
    most: number,
    silenceOnceSeen = Math.min(
      silence,
      this.#patience.silence + this.#allowance() + allowanceForTables(this.#material!.tables),
    ),
  ): Promise<Outcome> {
    const id = ++this.#ids;
    return new Promise((resolve, reject) => {
      if (this.#closed) return reject(new Error('the engine was closed'));
      const until = Date.now() + most;
      let at: Stuck | null = null;
      let timer: ReturnType<typeof setTimeout>;
      let sparing: ReturnType<typeof setTimeout>;
      const over = () => {
        clearTimeout(timer);
        clearTimeout(sparing);
      };
      const done = (outcome: Outcome) => {
        over();
        this.#waiting = null;
        if (outcome.ok && request.do === 'load') this.#isLoaded = true;
        resolve(outcome);
      };
      const giveUp = () => {
        this.#discard();
        done({ ok: false, at });
      };
      const wait = (patience: number) => {
        over();
        const left = Math.max(0, Math.min(patience, until - Date.now()));
        timer = setTimeout(giveUp, left);
        sparing = setTimeout(() => (this.#spare ??= this.#start()), left / 2);
      };
      wait(silence);
      this.#waiting = {
        id,
        settle: (outcome) => {
          if (!outcome.ok) this.#discard();
          done(outcome.ok ? outcome : { ok: false, at });
        },
        fail: (why) => {
          over();
          this.#waiting = null;
          this.#discard();
          reject(why);
        },
        sign: (place) => {
          at = place ?? at;
          wait(silenceOnceSeen);
        },
      };
      this.#connect().post({ ...request, id } as Request);
    });
  }

  #connect(): Port {
    if (this.#port !== null) return this.#port;
    const port = this.#spare ?? this.#start();
    this.#spare = null;
    port.onMessage((message) => {
      if (this.#port === port) this.#hear(message);
    });
    this.#port = port;
    this.#isAlive = false;
    return port;
  }

  #start(): Port {
    const port = this.#spawn();
    port.onLost((why) => this.#lose(port, why));
    return port;
  }

  #lose(port: Port, why: unknown): void {
    if (port === this.#spare) this.#spare = null;
    if (port !== this.#port) return;
    const waiting = this.#waiting;
    if (waiting === null) this.#discard();
    else if (this.#isAlive) waiting.settle({ ok: false, at: null });
    else waiting.fail(new CannotStart(why));
  }

  #hear(message: unknown): void {
    const reply = readReply(message);
    this.#isAlive = true;
    const waiting = this.#waiting;
    if (waiting === null) return;
    if (reply.type === 'at') return waiting.sign(reply);
    if (reply.type === 'alive') return waiting.sign(null);
    if (reply.id !== waiting.id) return;
    switch (reply.type) {
      case 'listens':
        return waiting.settle({ ok: true, listens: reply.listens });
      case 'answers':
        return waiting.settle({ ok: true, answers: reply.answers });
      case 'tried':
        return waiting.settle({ ok: true, answers: reply.answers, reached: reply.reached });
      case 'inspected':
        return waiting.settle({ ok: true, inspection: reply.inspection });
      case 'died':
        return waiting.settle({ ok: false, at: null });
      case 'failed':
        return waiting.fail(new Error(reply.how));
    }
  }

  #discard(): void {
    this.#port?.end();
    this.#port = null;
    this.#isLoaded = false;
  }
}

/** The material with one of its scripts out, and why. */
export function without(material: Material, { behaviour, line }: Stuck): Material {
  const failure = { code: 'stuck' as const, says: words.stuck, line };
  const out = (script: CompiledScript): CompiledScript =>
    script.name === behaviour ? { ...script, code: null, failure } : script;
  return {
    ...material,
    scripts: material.scripts.map(out),
    modules: material.modules.map(out),
  };
}
