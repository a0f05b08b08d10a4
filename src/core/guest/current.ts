/** The run going on in the machine, one at a time. What scripts touch asks it; the session asks nothing of it. */
import { ScriptError, words } from '../wire/failures';
import type { RuleSort } from '../wire/layout';
import type { Owner } from './promises';

/** What is known of a script while it runs. */
export interface ScriptLine {
  /** The line that is being run, 1-based. */
  l: number;
}

/** A run in its course, and while it waits. */
export class GuestRun implements Owner {
  /** By which the session knows it. */
  readonly number: number;
  readonly sort: 'handler' | RuleSort;
  readonly probe: ScriptLine;
  /** Where it was tied, 1-based. */
  readonly line: number;
  /** Reactions that are ready to run, in order; null once nothing of it goes on any more. */
  jobs: (() => void)[] | null = null;
  over = false;
  /** What its handler returned, when that is a promise. */
  main: object | null = null;
  /** The calls it waits for, by number. */
  calls: Map<
    number,
    (came: { ok: true; value: unknown } | { ok: false; reason: string }) => void
  > | null = null;
  /** A wrong use stays a failure even where the script catches it. */
  fault: ScriptError | null = null;

  constructor(number: number, sort: GuestRun['sort'], probe: ScriptLine, line: number) {
    this.number = number;
    this.sort = sort;
    this.probe = probe;
    this.line = line;
  }

  ready(job: () => void): void {
    if (!this.over) (this.jobs ??= []).push(job);
  }
}

export class Current {
  run: GuestRun | null = null;
  /** The probe of the script that runs, at the top level too. */
  probe: ScriptLine | null = null;
  topLevel = false;

  /** A fault that also ends the run where the script catches it. */
  fault(fault: ScriptError): never {
    if (this.run !== null) this.run.fault ??= fault;
    throw fault;
  }

  /** Collects faults apart from the run, until the returned function is called. */
  aside(): () => void {
    const { run } = this;
    const fault = run?.fault ?? null;
    return () => {
      if (run !== null) run.fault = fault;
    };
  }

  wrong(says: string): never {
    return this.fault(new ScriptError('wrong_use', says));
  }

  /** The run going on. Throws where there is none. */
  demand(what: string): GuestRun {
    if (this.run === null)
      throw new ScriptError(
        'wrong_use',
        this.topLevel ? words.topLevel(what) : words.outside(what),
      );
    return this.run;
  }

  /** Something a handler does that is no aspect; refused to rules and invariants. */
  act(what: string): void {
    const { sort } = this.demand(`${what} was called`);
    if (sort !== 'handler') this.wrong(words.notIn(sort, what));
  }

  /** The run that waits for a promise. */
  owner(): GuestRun {
    const run = this.demand('a promise was made');
    return run.sort === 'handler'
      ? run
      : this.fault(new ScriptError('async', words.asyncIn(run.sort)));
  }
}
