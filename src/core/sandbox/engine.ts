/**
 * A session that cannot hang its host. The sandbox runs in a worker; when it is silent or the machine dies, the worker is
 * ended, and a new one does everything again alone, with ten times the patience, while telling where it is. Only a script
 * in which that one is silent too is taken out, with its line named, and the session goes on. Nothing a person did is
 * lost, since the engine keeps the opening and the steps. What is measured is how long the worker could work
 * (`working-time.ts`), so that a busy machine is not blamed on a script.
 */
import type { Line } from '../wire/line';
import type { CompiledScript } from '../session/tie';
import { words } from '../wire/failures';
import type { Material } from '../session/material';
import type { Answer, Opening, TimedStep } from '../session/step';
import type { Request } from './protocol';
import { CannotStart, TookTooLong } from './cut-short';
import { readReply, type BriefAnswer } from './reply';
import { allowanceFor, allowanceForTables, rowsIn } from './allowance';
import type { Inspection, Wanted } from './inspector';
import type { Listens } from './sandbox';
import { TICK, WorkingTime } from './working-time';
import { ENGINE_UNHEARD } from '../limits';

/** A worker, whatever the host makes of it. */
export interface Port {
  post(message: Request): void;
  onMessage(listener: (message: unknown) => void): void;
  /** Its code could not be loaded, or it is gone; the reason is for the log alone. */
  onLost(listener: (why: unknown) => void): void;
  /** Milliseconds of processor time that it has used so far; null, or no such function, where the host cannot tell. */
  used?(): number | null;
  end(): void;
}

/** Milliseconds of work that an engine waits for; each protects a person from waiting for ever. */
export interface Patience {
  /** Without a sign of life, after which a worker is ended. A machine gives signs wherever its scripts still yield. */
  silence: number;
  /** For one step, however alive the machine is: every run of it may be within its fuel. */
  step: number;
  /** Of time itself, whatever the worker could do, after which it is given up and nobody is blamed. */
  unheard: number;
}

const PATIENCE: Patience = { silence: 700, step: 6000, unheard: ENGINE_UNHEARD };

/** How many times as long a worker may be silent that does everything again alone. */
const ALONE = 10;

/** How many times as long a step may take there, whose machine does give signs. */
const STEP_ALONE = 3;

/** More for each step of several that are done at once. */
const PER_STEP = 20;

/** How many times as long running in detail may take. */
const INSPECTING = 4;

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
interface Failed {
  ok: false;
  /** Where it was, as far as that is known. */
  at: Stuck | null;
  /** The worker itself is gone, for reasons of its own. */
  isLost: boolean;
}
type WorkerReply = ({ ok: true } & Done) | Failed;

/** How long an answer may take, in milliseconds of work. */
interface Waits {
  silence: number;
  most: number;
}

export class Engine {
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
    settle: (outcome: WorkerReply) => void;
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
  #worked = 0;
  /** Calls are done one after the other. */
  #last: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly spawn: () => Port,
    private readonly patience = PATIENCE,
  ) {}

  /** Milliseconds that its workers have worked for what was asked, all together. */
  get worked(): number {
    return this.#worked;
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
    return this.#inTurn(() => this.#take(material, suspects));
  }

  /** Opens the form and does steps: the answer of the opening, then one for each step. */
  play(opening: Opening, steps: readonly TimedStep[]): Promise<Answer[]> {
    return this.#inTurn(() => this.#playFrom(opening, steps));
  }

  /** Loads and plays as one, so that a step asked for meanwhile finds the form open. */
  loadAndPlay(
    material: Material,
    opening: Opening,
    steps: readonly TimedStep[],
  ): Promise<Answer[]> {
    return this.#inTurn(async () => {
      await this.#take(material, []);
      return this.#playFrom(opening, steps);
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

  /**
   * Tells the open session the id that its new record is saved under, where it was not known when it was opened. Nothing
   * that was done depends on it, so nothing is done again.
   */
  identify(newId: string): Promise<void> {
    return this.#inTurn(async () => {
      if (this.#opening === null) throw new Error('the form is not open');
      this.#opening = { ...this.#opening, newId };
      // A worker that is lost meanwhile is replaced by one that opens the form with it.
      if (this.#isLoaded) await this.#ask({ do: 'identify', newId }, this.#waits(0));
    });
  }

  async #doLast(): Promise<Answer> {
    let alone = false;
    if (this.#isLoaded) {
      const outcome = await this.#ask({ do: 'step', step: this.#steps.at(-1)! }, this.#waits(0));
      if (outcome.ok) return outcome.answers![0] as Answer;
      alone = !(await this.#judge(outcome));
    }
    return (await this.#playAll(false, alone)).at(-1) as Answer;
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
      const { silence, most } = this.#waits(steps.length);
      const outcome = await this.#ask(
        { do: 'inspect', opening, steps: [...steps], wanted },
        { silence: INSPECTING * silence, most: INSPECTING * most },
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
      const outcome = await this.#ask(
        { do: 'try', opening, steps: [...steps], mutant, reachedOf },
        this.#waits(steps.length),
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

  async #take(material: Material, suspects: readonly Stuck[]): Promise<void> {
    this.#material = material;
    this.#opening = null;
    this.#steps = [];
    this.#suspects = [...suspects];
    this.#stuck = [];
    await this.#load();
  }

  #playFrom(opening: Opening, steps: readonly TimedStep[]): Promise<Answer[]> {
    this.#opening = opening;
    this.#steps = [...steps];
    return this.#playAll(false) as Promise<Answer[]>;
  }

  /** How long doing so many steps may take; longer for sessions with many rows. */
  #waits(steps: number): Waits {
    const rows =
      this.#opening === null
        ? 0
        : rowsIn(this.#opening) + this.#steps.reduce((sum, step) => sum + rowsIn(step), 0);
    const more = allowanceFor(rows) + allowanceForTables(this.#material?.tables ?? []);
    return {
      silence: this.patience.silence + more,
      most: this.patience.step + PER_STEP * steps + more,
    };
  }

  /** The same for a worker that does everything again alone. */
  #waitsAlone(steps: number): Waits {
    const { silence, most } = this.#waits(steps);
    return { silence: ALONE * silence, most: STEP_ALONE * most };
  }

  async #load(): Promise<void> {
    let waits = this.#waits(0);
    for (let tries = this.#material!.scripts.length; tries >= 0; tries--) {
      const outcome = await this.#askToLoad(false, waits);
      if (outcome.ok) {
        this.#listens = outcome.listens!;
        return;
      }
      if (!(await this.#judge(outcome))) waits = this.#waitsAlone(0);
    }
    throw new TookTooLong();
  }

  #askToLoad(watched: boolean, waits: Waits): Promise<WorkerReply> {
    return this.#ask({ do: 'load', material: this.#material!, watched }, waits);
  }

  /** The worker that had the material is gone, and another one has none yet. */
  async #loadIfLost(): Promise<void> {
    if (!this.#isLoaded) await this.#load();
  }

  /** Does everything again; with the patience of one that is `alone` where nothing was to blame for the last silence. */
  async #playAll(brief: boolean, alone = false): Promise<(Answer | BriefAnswer)[]> {
    for (let tries = this.#material!.scripts.length; tries >= 0; tries--) {
      await this.#loadIfLost();
      const outcome = await this.#play(alone, brief);
      if (outcome.ok) return outcome.answers!;
      alone = !(await this.#judge(outcome));
    }
    throw new TookTooLong();
  }

  #play(alone: boolean, brief: boolean): Promise<WorkerReply> {
    const steps = this.#steps.length;
    return this.#ask(
      { do: 'play', opening: this.#opening!, steps: this.#steps, brief },
      alone ? this.#waitsAlone(steps) : this.#waits(steps),
    );
  }

  /**
   * Something was silent, or died. Takes out the script that is to blame: a suspect, where there is one, else the one in
   * which a watched machine gets stuck that does all again alone. Whether one was to blame: where everything came through
   * this time, none is. What is left has to be loaded again.
   */
  async #judge({ at, isLost }: Failed): Promise<boolean> {
    const [known] = isLost ? [] : this.#suspects.splice(0, 1);
    const culprit = known ?? at ?? (await this.#findCulprit());
    this.#isLoaded = false;
    if (culprit === null) return false;
    this.#stuck.push(culprit);
    this.#material = without(this.#material!, culprit);
    return true;
  }

  async #findCulprit(): Promise<Stuck | null> {
    const loaded = await this.#askToLoad(true, this.#waitsAlone(0));
    if (!loaded.ok) return loaded.at;
    if (this.#opening === null) return null;
    const played = await this.#play(true, true);
    return played.ok ? null : played.at;
  }

  /**
   * Asks the worker. It is ended when it is silent for too long, or takes too long in all, of what it could work. Throws
   * TookTooLong where it was not heard of for longer than anybody waits, however little of that it could work, and
   * CannotStart for one that was never heard of.
   */
  #ask(request: Unnumbered<Request>, { silence, most }: Waits): Promise<WorkerReply> {
    const id = ++this.#ids;
    return new Promise((resolve, reject) => {
      if (this.#closed) return reject(new Error('the engine was closed'));
      const port = this.#connect();
      const working = new WorkingTime(() => port.used?.() ?? null);
      let at: Stuck | null = null;
      let heardWorked = 0;
      /** What it had worked when it was first heard of: the time to start does not count as time for the request. */
      let begunWorked = this.#isAlive ? 0 : null;
      let heardAt = performance.now();
      let isTurning = false;
      let timer: ReturnType<typeof setTimeout>;
      const over = () => {
        clearTimeout(timer);
        this.#worked += working.look();
        this.#waiting = null;
      };
      const done = (outcome: WorkerReply) => {
        over();
        if (outcome.ok && request.do === 'load') this.#isLoaded = true;
        resolve(outcome);
      };
      const fail = (why: Error) => {
        over();
        this.#discard();
        reject(why);
      };
      const look = () => {
        const worked = working.look();
        const isUnheard = performance.now() - heardAt > this.patience.unheard;
        // A worker whose code is still being loaded has no script to be silent in.
        const isSilent =
          begunWorked !== null && (worked - heardWorked > silence || worked - begunWorked > most);
        if (!isSilent && !isUnheard) isTurning = false;
        else if (!isTurning)
          // What it said may be here already: the loop turns once before anything is decided.
          isTurning = true;
        else if (isSilent) {
          this.#discard();
          return done({ ok: false, at, isLost: false });
        } else return fail(begunWorked === null ? new CannotStart('silence') : new TookTooLong());
        if (begunWorked !== null && worked - heardWorked > silence / 2)
          this.#spare ??= this.#start();
        timer = setTimeout(look, isTurning ? 0 : TICK);
      };
      timer = setTimeout(look, TICK);
      this.#waiting = {
        id,
        settle: (outcome) => {
          if (!outcome.ok) this.#discard();
          done(outcome.ok ? outcome : { ...outcome, at });
        },
        fail,
        sign: (place) => {
          at = place ?? at;
          heardAt = performance.now();
          heardWorked = working.look();
          begunWorked ??= heardWorked;
          isTurning = false;
        },
      };
      port.post({ ...request, id } as Request);
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
    const port = this.spawn();
    port.onLost((why) => this.#lose(port, why));
    return port;
  }

  #lose(port: Port, why: unknown): void {
    if (port === this.#spare) this.#spare = null;
    if (port !== this.#port) return;
    const waiting = this.#waiting;
    if (waiting === null) this.#discard();
    else if (this.#isAlive) waiting.settle({ ok: false, at: null, isLost: true });
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
        return waiting.settle({ ok: false, at: null, isLost: false });
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
