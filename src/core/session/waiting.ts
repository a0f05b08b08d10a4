/**
 * What a session waits for: runs that are open, the calls they wait for, and when on the session's
 * clock each call is due. Nothing here runs scripts; `time.ts` moves the clock and has `running.ts` go on. What changes
 * here in a step that is taken back is put back.
 */
import type { Value } from '../form/value';
import type { Aspect, RunRecord } from './aspects';
import { inOrder, keepMap, keepSet, type Restore } from './checkpoint';
import type { Part } from './parts';
import type { Progress } from './progress';
import type { Row } from './rows';
import type { Handler } from './tie';

/** A run in its course. `open` while it waits, and after that one of the three ways it can end. */
export type RunState =
  /** It waits for a call, or for what its script made it wait for. */
  | 'open'
  /** It came to its end, and all its calls have ended. */
  | 'ended'
  /** A stretch of it threw; what that stretch did is undone. */
  | 'failed'
  /** It is not resumed: its handler started again, another record was opened, or its step was taken back. */
  | 'superseded';

export class OpenRun {
  state: RunState = 'open';
  readonly calls = new Set<Call>();
  /** What it said of aspects, with what stood before it: taken back when it is superseded. */
  readonly claims = new Map<
    Aspect,
    { before: Aspect['handlerClaim']; mine: Aspect['handlerClaim'] }
  >();

  constructor(
    /** By which the scripts' end knows it. */
    readonly number: number,
    readonly handler: Handler,
    readonly title: string,
    /** The part and row it was started for: another start for the same supersedes it. */
    readonly part: Part | null,
    readonly row: Row | null,
    readonly record: RunRecord,
  ) {}
}

/** What a call came to. */
export type CallResult = { ok: true; value: Value | undefined } | { ok: false; reason: string };

/** Something that ends at a moment of the session's clock: a service's answer, or `after`. */
export interface Call {
  /** `ship_register.find`, `after` or `parent.set`. */
  readonly name: string;
  readonly args: Value;
  readonly run: OpenRun;
  /** Milliseconds since 1970-01-01T00:00:00Z; Infinity when somebody answers by hand. */
  due: number;
  readonly since: number;
  /** Calls due at the same moment end in the order in which they were made; the number is also the scripts' end's. */
  readonly order: number;
  /** Its entry on the tape. */
  readonly entry: number | null;
  /** Computed when it is due. */
  readonly outcome: () => CallResult;
}

export class Waiting {
  /** In the order in which they began. */
  runs: readonly OpenRun[] = [];
  #calls: readonly Call[] = [];
  /** Never given again, even after an undoing: the scripts' end knows calls by it. */
  #order = 0;

  constructor(
    private readonly progress: Progress,
    /** Tells the scripts' end that nothing of a run goes on. */
    private readonly drop: (run: number) => void,
  ) {}

  add(call: Omit<Call, 'order'>): Call {
    const made: Call = { ...call, order: this.#order++ };
    this.#setCalls([...this.#calls, made]);
    call.run.calls.add(made);
    this.progress.journal.undoable(() => call.run.calls.delete(made));
    return made;
  }

  /** The run waits; it is told among those that do. A step that is taken back ends it, since it cannot begin again. */
  keep(run: OpenRun): void {
    this.progress.journal.undoable(() => this.#lose(run));
    if (!this.runs.includes(run)) this.#setRuns([...this.runs, run]);
  }

  /** The call that ends next, up to a moment of the clock; null when none does. */
  next(until: number): Call | null {
    let next: Call | null = null;
    for (const call of this.#calls) {
      if (call.due <= until && (next === null || call.due < next.due)) next = call;
    }
    return next;
  }

  /** A call of this name that is pending; the oldest is 0. */
  pending(name: string, which: number): Call | null {
    return this.#calls.filter((call) => call.name === name)[which] ?? null;
  }

  /** The call has ended and its run goes on: what follows cannot be done again. */
  answered(call: Call): void {
    this.#calls = this.#calls.filter((other) => other !== call);
    call.run.calls.delete(call);
    this.progress.journal.undoable(() => this.#lose(call.run));
  }

  /** Calls that are pending, the oldest first. */
  get calls(): readonly Call[] {
    return this.#calls;
  }

  /** The open run of the same handler for the same part and row. */
  earlier(handler: Handler, part: Part | null, row: Row | null): OpenRun | null {
    for (const run of this.runs)
      if (run.handler === handler && run.part === part && run.row === row) return run;
    return null;
  }

  /** Ends a run, with all it waits for. */
  end(run: OpenRun, state: Exclude<RunState, 'open'>): void {
    const calls = [...run.calls];
    run.state = state;
    run.calls.clear();
    this.#setRuns(this.runs.filter((other) => other !== run));
    this.#setCalls(this.#calls.filter((call) => call.run !== run));
    this.progress.journal.undoable(() => {
      run.state = 'open';
      for (const call of calls) run.calls.add(call);
    });
    if (state === 'superseded') this.progress.onCommit(() => this.drop(run.number));
  }

  /** Its step was taken back: a run that began or went on in it is over, wherever the undoing leaves it. */
  #lose(run: OpenRun): void {
    if (run.state !== 'superseded') this.drop(run.number);
    run.state = 'superseded';
    run.calls.clear();
    this.runs = this.runs.filter((other) => other !== run);
    this.#calls = this.#calls.filter((call) => call.run !== run);
  }

  checkpoint(): Restore {
    const { runs } = this;
    const calls = this.#calls;
    const each = inOrder([
      ...runs.map((run) => keepRun(run)),
      ...calls.map((call) => {
        const { due } = call;
        return () => {
          call.due = due;
        };
      }),
    ]);
    return () => {
      this.runs = runs;
      this.#calls = calls;
      each();
    };
  }

  #setRuns(runs: readonly OpenRun[]): void {
    const before = this.runs;
    this.runs = runs;
    this.progress.journal.undoable(() => {
      this.runs = before.filter((run) => run.state === 'open');
    });
  }

  #setCalls(calls: readonly Call[]): void {
    const before = this.#calls;
    this.#calls = calls;
    this.progress.journal.undoable(() => {
      this.#calls = before.filter((call) => call.run.state === 'open');
    });
  }
}

function keepRun(run: OpenRun): Restore {
  const { state } = run;
  const calls = keepSet(run.calls);
  const claims = keepMap(run.claims);
  return () => {
    run.state = state;
    calls();
    claims();
  };
}
