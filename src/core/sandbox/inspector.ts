/**
 * Looks on while a session runs again: writes down wanted runs in detail, looks at everything at wanted moments, turns
 * conditions round where somebody tries that, and collects what is asked on the way. The session that people use is
 * another one; what is asked here never reaches it.
 */
import { DETAILS_PER_RUN, ASKED_IN_ALL } from '../limits';
import type { Value } from '../form/value';
import type { Aspect } from '../session/aspects';
import type { Detail, DetailedRun, SitePlace } from '../session/detail';
import type { Entry } from '../session/entries';
import type { Look } from '../session/looking';
import type { Part } from '../session/parts';
import type { Observer } from '../session/observer';
import type { Answer } from '../session/step';
import { forTape } from '../session/tape-writer';
import { Report, Tracing } from '../wire/layout';
import type { Line } from '../wire/line';
import type { Reports } from './questions';

/** A moment of a session that runs again. */
export interface Moment {
  /** Right after this entry was put on the tape; null for the end. */
  entry: number | null;
  /** Within a run: right after so many of its details (from 0). Null for where the entry stands. */
  detail: number | null;
}

export interface Wanted {
  /** Runs, by the numbers of their entries, of which the details are wanted. */
  runs: readonly number[] | 'all';
  moments: readonly Moment[];
  /** Conditions that are to come out the other way round, in the runs whose details are wanted. */
  turned: readonly SitePlace[];
  /** Whether what the scripts were compiled with is asked on the way. */
  asks: boolean;
  /** Whether the answers are wanted too. */
  answers: boolean;
}

/** The value of a watch or condition at one moment of a run. */
export interface WatchValue {
  id: number;
  /** The run that it was asked in, by its entry, and how many details of it there were by then; nulls for between runs. */
  entry: number | null;
  detail: number | null;
  value: Value;
  /** Why it has no value. */
  failed: string | null;
}

export interface Inspection {
  answers: Answer[];
  runs: DetailedRun[];
  /** In the order of the moments wanted; null for one that never came. */
  looks: (Look | null)[];
  asked: WatchValue[];
  /** There was more than is kept. */
  cut: boolean;
}

export class Inspector implements Observer, Reports {
  readonly #wanted: Wanted;
  readonly #runs: ReadonlySet<number> | null;
  readonly #turned: ReadonlySet<string>;
  readonly #look: () => Look;
  /** Asks between two runs. */
  readonly #askNow: () => void;
  readonly #detailed = new Map<number, DetailedRun>();
  readonly #looks: (Look | null)[];
  readonly #asked: WatchValue[] = [];
  #cut = false;
  /** The run that reports in detail. */
  #run: DetailedRun | null = null;
  /** The run going on, whether it reports or not. */
  #entry: number | null = null;

  constructor(wanted: Wanted, { look, ask }: { look: () => Look; ask: () => void }) {
    this.#wanted = wanted;
    this.#runs = wanted.runs === 'all' ? null : new Set(wanted.runs);
    this.#turned = new Set(wanted.turned.map(({ script, site }) => `${script}:${site}`));
    this.#look = look;
    this.#askNow = ask;
    this.#looks = wanted.moments.map(() => null);
  }

  get tracing(): number {
    return (this.#run === null ? 0 : Tracing.Details) + (this.#wanted.asks ? Tracing.Asked : 0);
  }

  begins(entry: number): void {
    this.#entry = entry;
    if (this.#runs !== null && !this.#runs.has(entry)) return;
    this.#run = { entry, details: [], cut: false };
    this.#detailed.set(entry, this.#run);
  }

  ends(): void {
    this.#entry = null;
    this.#run = null;
  }

  read(aspect: Aspect, value: Value): void {
    if (this.#run === null) return;
    this.#add({
      is: 'read',
      part: aspect.part.name,
      aspect: aspect.name,
      value: forTape(value),
    });
  }

  said(aspect: Aspect, value: Value | undefined, line: Line): void {
    if (this.#run === null) return;
    this.#add({
      is: 'said',
      part: aspect.part.name,
      aspect: aspect.name,
      value: forTape(value ?? null),
      ...(value === undefined ? { withdrawn: true } : {}),
      line,
    });
  }

  asked(what: string, value: unknown): void {
    if (this.#run !== null) this.#add({ is: 'asked', what, value: forTape(value as Value) });
  }

  stopped(part: Part | null, says: string): void {
    if (this.#run !== null) this.#add({ is: 'stopped', part: part?.name ?? null, says });
  }

  taped(entry: Entry): void {
    if (this.#run !== null) this.#add({ is: 'entry', n: entry.n });
    this.#reached({ entry: entry.n, detail: null });
  }

  report(what: Report, place: SitePlace, frame: number, value: Value): boolean {
    if (what === Report.Asked || what === Report.AskFailed) {
      this.#answered(frame, value, what === Report.AskFailed);
      return false;
    }
    if (this.#run === null || what === Report.Ask) return false;
    const made = detailOf(what, place, frame, value);
    if (made === null) return false;
    const turned = what === Report.Condition && this.#turned.has(`${place.script}:${place.site}`);
    this.#add(turned ? ({ ...made, turned: true } as Detail) : made);
    return turned;
  }

  /** All that was wanted. To be called when the session has come to its end. */
  end(answers: Answer[]): Inspection {
    this.#reached({ entry: null, detail: null });
    return {
      answers: this.#wanted.answers ? answers : [],
      runs: [...this.#detailed.values()],
      looks: this.#looks,
      asked: this.#asked,
      cut: this.#cut,
    };
  }

  #answered(id: number, value: Value, failed: boolean): void {
    if (this.#asked.length >= ASKED_IN_ALL) {
      this.#cut = true;
      return;
    }
    this.#asked.push({
      id,
      entry: this.#entry,
      detail: this.#run === null ? null : this.#run.details.length,
      value: failed ? null : value,
      failed: failed ? String(value) : null,
    });
  }

  #add(detail: Detail): void {
    const run = this.#run!;
    if (run.details.length >= DETAILS_PER_RUN) {
      run.cut = true;
      return;
    }
    run.details.push(detail);
    this.#reached({ entry: run.entry, detail: run.details.length - 1 });
  }

  #reached({ entry, detail }: Moment): void {
    const { moments } = this.#wanted;
    if (moments.length === 0) return;
    moments.forEach((moment, i) => {
      if (moment.entry !== entry || moment.detail !== detail || this.#looks[i] !== null) return;
      this.#looks[i] = this.#look();
      if (this.#wanted.asks && this.#entry === null) this.#askNow();
    });
  }
}

/** What a report means; null for one that means nothing. */
function detailOf(what: Report, place: SitePlace, frame: number, value: Value): Detail | null {
  const values = Array.isArray(value) ? (value as Value[]) : [];
  switch (what) {
    case Report.Enter:
      return { is: 'enter', frame, values, ...place };
    case Report.Leave:
      return { is: 'leave', frame };
    case Report.Suspend:
      return { is: 'suspend', frame };
    case Report.Resume:
      return { is: 'resume', frame, value };
    case Report.Statement:
      return { is: 'statement', frame, values, ...place };
    case Report.Begin:
      return { is: 'begin', frame, ...place };
    case Report.Condition:
      return { is: 'condition', frame, value, ...place };
    case Report.Switch:
      return { is: 'switch', frame, value, ...place };
    case Report.Operand:
      return { is: 'operand', frame, value, ...place };
    case Report.Value:
      return { is: 'value', value, expression: frame, script: place.script, line: place.site };
    default:
      return null;
  }
}
