/**
 * A session that goes on in this browser, and its one owner: the engine, how the form was opened, the steps done, the
 * place in time that is looked at, the clock, and trying again where the engine cannot start. The bench and the page on
 * which forms are filled in use it, each with its own sort of time.
 */
import { createStore, type StoreApi } from 'zustand/vanilla';
import { untilDone, wasCutShort } from '@/core/sandbox/cut-short';
import type { Engine } from '@/core/sandbox/engine';
import type { Material } from '@/core/session/material';
import type { Answer, Opening, Step, TimedStep } from '@/core/session/step';

export interface SessionState<O> {
  open: O;
  steps: readonly TimedStep[];
  /** The opening's answer, then one for each step that has been answered. */
  answers: readonly Answer[];
  /** After how many steps the form is looked at; all of them while it is in use. */
  at: number;
  /** Names of the fields whose `input`, `focus` and `blur` scripts listen to. */
  listens: Engine['listens'];
  /** Everything is being done again. */
  busy: boolean;
  /** The engine cannot start, until it is tried again. */
  cannotStart: boolean;
}

/** `O` is how the form was opened, in the terms of whoever owns the session. */
export interface SessionOptions<O> {
  engine(): Engine | Promise<Engine>;
  /** What runs now. */
  material(): Material;
  openingOf(open: O): Opening;
  open: O;
  steps?: readonly TimedStep[];
  /**
   * `steps`: time passes in steps of their own that say how long, so that a session is the same whenever it is played.
   * `real`: each step says at how many milliseconds after the opening it was done.
   * `followed`: another session passes it, whose steps are done here as well.
   */
  time: 'steps' | 'real' | 'followed';
  /** Steps that are refused stay, to be seen; else they were not done. */
  keepsRefused: boolean;
  /** All was done again; `before` are the answers that it had before. */
  replayed?(before: readonly Answer[]): void;
  stepped?(answer: Answer): void;
}

export class LiveSession<O> {
  readonly store: StoreApi<SessionState<O>>;
  #engine: Engine | null = null;
  /** Ends what an earlier beginning still waits for. */
  #beginning: object | null = null;
  #openedAt = 0;
  /** What a new record is saved under, where it became known after the opening. */
  #newId: string | null = null;
  #wait: ReturnType<typeof setTimeout> | undefined;
  /** Those that go on once it is tried again. */
  readonly #stopped: (() => void)[] = [];

  constructor(private readonly options: SessionOptions<O>) {
    const { open, steps = [] } = options;
    this.store = createStore<SessionState<O>>(() => ({
      open,
      steps,
      answers: [],
      at: steps.length,
      listens: { input: [], focus: [], blur: [] },
      busy: true,
      cannotStart: false,
    }));
  }

  get state(): SessionState<O> {
    return this.store.getState();
  }

  /** The steps that have been answered. */
  get done(): readonly TimedStep[] {
    return this.state.steps.slice(0, Math.max(0, this.state.answers.length - 1));
  }

  /** Starts the engine, and opens the form. */
  async begin(): Promise<void> {
    const beginning = {};
    this.#beginning = beginning;
    let engine: Engine | null = null;
    // The page is drawn before what the form runs in is there.
    while (engine === null) {
      try {
        engine = await this.options.engine();
      } catch {
        if (this.#beginning !== beginning) return;
        await this.#untilTriedAgain();
      }
      if (this.#beginning !== beginning) return engine?.close();
    }
    this.#engine = engine;
    this.#openedAt = Date.now();
    await this.replay();
  }

  end(): void {
    this.#beginning = null;
    this.#engine?.close();
    this.#engine = null;
    clearTimeout(this.#wait);
  }

  /** Does a step and gives its answer; null where the past is looked at, or the session has been ended meanwhile. */
  async step(done: Step): Promise<Answer | null> {
    if (this.state.at < this.state.steps.length) return null;
    clearTimeout(this.#wait);
    const step = this.options.time === 'real' ? { ...done, at: Date.now() - this.#openedAt } : done;
    const steps = [...this.state.steps, step];
    this.store.setState({ steps, at: steps.length });
    const answer = await this.#untilStarted((engine) =>
      engine.step(step).then((came) => {
        // In the same moment as the engine has answered: what it does next may read what was done.
        this.#take(step, came);
        return came;
      }),
    );
    if (answer !== null) this.#passTime();
    return answer;
  }

  #take(step: TimedStep, answer: Answer): void {
    const { steps, answers } = this.state;
    // What is played meanwhile brings the answers itself.
    if (steps[answers.length - 1] !== step) return;
    if (answer.refused !== null && !this.options.keepsRefused) {
      const left = steps.filter((one) => one !== step);
      this.store.setState({ steps: left, at: left.length });
    } else this.store.setState({ answers: [...answers, answer], listens: this.#engine!.listens });
    this.options.stepped?.(answer);
  }

  /** Loads what runs now and does everything done so far again. */
  async replay(): Promise<void> {
    await this.#play(true);
  }

  /** Opens the form anew with these steps, and looks at it after some of them. */
  async show(open: O, steps: readonly TimedStep[] = [], at = steps.length): Promise<void> {
    this.#newId = null;
    this.store.setState({ open, steps: [...steps], answers: [], at });
    await this.#play(true);
    this.store.setState({ at });
  }

  /** Takes the last step back by doing the others again. */
  async undo(): Promise<void> {
    if (this.state.steps.length > 0) await this.goOnFrom(this.state.steps.length - 1);
  }

  /** Makes a former step the last one, and gives those that came after it. */
  async goOnFrom(at: number): Promise<readonly TimedStep[]> {
    const { steps, answers } = this.state;
    this.store.setState({ steps: steps.slice(0, at), at, answers: answers.slice(0, at + 1) });
    await this.#play(false);
    return steps.slice(at);
  }

  /** Does steps after those done so far, whatever is looked at. */
  async add(more: readonly TimedStep[]): Promise<void> {
    const steps = [...this.state.steps, ...more];
    this.store.setState({ steps, at: steps.length });
    await this.#play(false);
    this.lookAt(steps.length);
  }

  /** Looks at the form after some of the steps; at all of them it is in use. */
  lookAt(at: number): void {
    this.store.setState(({ steps }) => ({ at: Math.max(0, Math.min(at, steps.length)) }));
    this.#passTime();
  }

  /** The id of a new record is known now; nothing that was done depends on it. */
  async identify(newId: string): Promise<void> {
    this.#newId = newId;
    await this.#untilStarted((engine) => engine.identify(newId));
  }

  tryAgain(): void {
    for (const go of this.#stopped.splice(0)) go();
  }

  async #play(loads: boolean): Promise<void> {
    const { open, steps, answers: before } = this.state;
    this.store.setState({ busy: true });
    const answers = await this.#untilStarted((engine) => {
      const known = this.options.openingOf(open);
      const opening = this.#newId === null ? known : { ...known, newId: this.#newId };
      return loads
        ? engine.loadAndPlay(this.options.material(), opening, steps)
        : engine.play(opening, steps);
    });
    if (answers === null) return;
    // A step done meanwhile was answered by what ran before; all is done once more with it.
    if (this.state.steps !== steps || this.state.open !== open) return this.#play(loads);
    const { listens } = this.#engine!;
    const isAlike = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
    this.store.setState({
      // What is equal draws nothing again.
      answers: isAlike(answers, before) ? before : answers,
      at: Math.min(this.state.at, steps.length),
      listens: isAlike(listens, this.state.listens) ? this.state.listens : listens,
      busy: false,
    });
    this.#passTime();
    this.options.replayed?.(before);
  }

  /**
   * What the engine answers; where its worker cannot be loaded or the machine is too busy, as soon as somebody tries again
   * and it can. Null once the session has been ended.
   */
  async #untilStarted<T>(work: (engine: Engine) => Promise<T>): Promise<T | null> {
    const engine = this.#engine;
    if (engine === null) return null;
    try {
      const answer = await untilDone(() => work(engine));
      // Each step comes by here, and setting what is so already would be looked at by every pane.
      if (this.state.cannotStart) this.store.setState({ cannotStart: false });
      return answer;
    } catch (caught) {
      if (this.#engine !== engine) return null;
      // Whatever it was, nothing that was done is lost for it.
      if (!wasCutShort(caught)) console.error(caught);
    }
    await this.#untilTriedAgain();
    return this.#untilStarted(work);
  }

  async #untilTriedAgain(): Promise<void> {
    this.store.setState({ cannotStart: true });
    await new Promise<void>((resolve) => this.#stopped.push(resolve));
  }

  /** When something that is waited for becomes due, the session is told by a step. */
  #passTime(): void {
    clearTimeout(this.#wait);
    if (this.options.time === 'followed') return;
    const { answers, steps, at } = this.state;
    const last = answers.at(-1);
    if (last === undefined || at < steps.length || answers.length !== steps.length + 1) return;
    const due = Math.min(
      ...last.waiting.flatMap((run) => run.calls.map((call) => call.due ?? Infinity)),
    );
    if (!Number.isFinite(due)) return;
    const isReal = this.options.time === 'real';
    const now = isReal ? answers[0]!.clock + Date.now() - this.#openedAt : last.clock;
    const left = Math.max(0, due - now);
    // A millisecond later it is due for certain.
    this.#wait = setTimeout(
      () => void this.step({ wait: isReal ? 0 : left }),
      isReal ? left + 1 : left,
    );
  }
}
