/**
 * What a session waits for (semantics 21–24): runs that are open, the calls they wait for, and when on the session's
 * clock each call is due. Nothing here runs scripts; `session.ts` moves the clock and has `runs.ts` go on.
 */
import type { Value } from '../form/value';
import type { Aspect, Part, RunRecord } from './parts';
import type { Owner } from './promises';
import type { Row } from './rows';
import type { Handler } from './ties';

/** A run in its course. `open` while it waits, and after that one of the three ways it can end. */
export type RunState = 'open' | 'ended' | 'failed' | 'superseded';

export class OpenRun implements Owner {
  readonly handler: Handler;
  readonly title: string;
  /** The part and row it was started for: another start for the same supersedes it. */
  readonly part: Part | null;
  readonly row: Row | null;
  readonly record: RunRecord;
  state: RunState = 'open';
  /** What its handler returned. */
  main: object | null = null;
  readonly calls = new Set<Call>();
  /** What it said of aspects, with what stood before it: taken back when it is superseded. */
  readonly words = new Map<Aspect, { before: Aspect['handlerWord']; mine: Aspect['handlerWord'] }>();
  /** Reactions that are ready to run, in order. */
  jobs: (() => void)[] = [];

  constructor(handler: Handler, title: string, part: Part | null, row: Row | null, record: RunRecord) {
    this.handler = handler;
    this.title = title;
    this.part = part;
    this.row = row;
    this.record = record;
  }

  ready(job: () => void): void {
    if (this.state === 'open') this.jobs.push(job);
  }
}

/** What a call came to. */
export type Outcome = { ok: true; value: unknown } | { ok: false; reason: string };

/** Something that ends at a moment of the session's clock: a service's answer, or `after`. */
export interface Call {
  /** `ship_register.find`, `after` or `parent.set`. */
  readonly name: string;
  readonly args: Value;
  readonly run: OpenRun;
  /** Milliseconds since 1970-01-01T00:00:00Z; Infinity when somebody answers by hand. */
  due: number;
  readonly since: number;
  /** Calls due at the same moment end in the order in which they were made. */
  readonly order: number;
  /** Its entry on the tape. */
  readonly entry: number | null;
  /** Computed when it is due. */
  readonly outcome: () => Outcome;
  readonly settle: (outcome: Outcome) => void;
}

export class Waiting {
  /** In the order in which they began. */
  readonly runs = new Set<OpenRun>();
  #calls: Call[] = [];
  #order = 0;

  add(call: Omit<Call, 'order'>): Call {
    const made: Call = { ...call, order: this.#order++ };
    this.#calls.push(made);
    call.run.calls.add(made);
    return made;
  }

  /** The call that ends next, up to a moment of the clock; null when none does. */
  next(until: number): Call | null {
    let next: Call | null = null;
    for (const call of this.#calls) {
      if (call.due <= until && (next === null || call.due < next.due)) next = call;
    }
    return next;
  }

  /** The oldest call of this name that is pending. */
  oldest(name: string): Call | null {
    return this.#calls.find((call) => call.name === name) ?? null;
  }

  remove(call: Call): void {
    this.#calls = this.#calls.filter((other) => other !== call);
    call.run.calls.delete(call);
  }

  /** Calls that are pending, the oldest first. */
  get calls(): readonly Call[] {
    return this.#calls;
  }

  /** The open run of the same handler for the same part and row. */
  earlier(handler: Handler, part: Part | null, row: Row | null): OpenRun | null {
    for (const run of this.runs) if (run.handler === handler && run.part === part && run.row === row) return run;
    return null;
  }

  /** Ends a run, with all it waits for. */
  end(run: OpenRun, state: Exclude<RunState, 'open'>): void {
    run.state = state;
    run.jobs = [];
    this.runs.delete(run);
    this.#calls = this.#calls.filter((call) => call.run !== run);
    run.calls.clear();
  }

  clear(): OpenRun[] {
    const left = [...this.runs];
    for (const run of left) this.end(run, 'superseded');
    return left;
  }
}
