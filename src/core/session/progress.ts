/**
 * The step in progress: what it has done so far, in one object. Everything that scripts do registers here how it is
 * undone, so that a step that does not settle takes back all of it, and the answer is made from what is
 * left. What the person entered is entered again then.
 */
import type { Value } from '../form/value';
import type { Failure } from '../wire/failures';
import type { By, EventType } from '../wire/layout';
import type { RunRecord } from './aspects';
import type { Restore } from './checkpoint';
import { Journal } from './journal';
import type { Part } from './parts';
import type { Row } from './rows';
import type { LogLine, Message, SubmitOutcome } from './step';

export interface Event {
  type: EventType;
  part: Part | null;
  /** The row that was added or removed, or in which it happened. */
  row: Row | null;
  value: Value;
  previous: Value;
  by: By;
  /** The run that made it happen; null for persons and the form. */
  from: RunRecord | null;
  cause: number | null;
  /** What handlers get besides, such as the id of the saved record. */
  extra?: Record<string, string | null>;
  /** Stops what the event announces; `readsOf` are the parts that the handler had read. */
  stop?: (says: string, part: Part | null, readsOf: ReadonlySet<Part>) => void;
}

/** Events of the form itself concern no part, row, value or run. */
export const OF_FORM = { part: null, row: null, value: null, previous: null, from: null } as const;

/** What waits for its turn: an event, or something that a person entered. */
export type Item = Event | (() => void);

export class Progress {
  readonly journal = new Journal();
  /** Counts settlings: a step, and each continuation after a wait, which count their runs again. */
  number = 0;
  /** The opening is settling: nothing is cleared, and what came with the record may stay. */
  opening = false;
  /** First in, first out. */
  readonly queue: Item[] = [];
  messages: Message[] = [];
  /** Not undone, as errors are not: what a run said about itself helps most when it failed. */
  logs: LogLine[] = [];
  toParent: { set: string; to: Value }[] = [];
  errors: Failure[] = [];
  outcome: SubmitOutcome | null = null;
  /** A script asked for a submission, which follows as a step of its own. */
  submitWanted = false;
  /** What the person entered, to be entered again when all else is taken back. */
  #entered: (() => void)[] = [];
  /** What happens once the settling is over for good. */
  #after: (() => void)[] = [];

  /** Begins a settling that can be undone as one. */
  begin(opening: boolean): void {
    this.number++;
    this.opening = opening;
    this.commit();
  }

  /** Nothing so far will be undone any more. */
  commit(): void {
    this.#entered = [];
    this.journal.forget();
    if (this.#after.length === 0) return;
    const after = this.#after;
    this.#after = [];
    for (const act of after) act();
  }

  /** Notes what a person entered: it stays even when scripts do not settle. */
  entered(again: () => void): void {
    this.#entered.push(again);
  }

  /** Does something that cannot be undone once nothing will be. */
  onCommit(act: () => void): void {
    this.#after.push(act);
    this.journal.undoable(() => {
      this.#after = this.#after.filter((other) => other !== act);
    });
  }

  message(message: Message): void {
    this.messages.push(message);
    this.journal.undoable(() => {
      this.messages = this.messages.filter((other) => other !== message);
    });
  }

  askParent(asked: { set: string; to: Value }): void {
    this.toParent.push(asked);
    this.journal.undoable(() => {
      this.toParent = this.toParent.filter((other) => other !== asked);
    });
  }

  wantSubmit(): void {
    const before = this.submitWanted;
    this.submitWanted = true;
    this.journal.undoable(() => {
      this.submitWanted = before;
    });
  }

  setOutcome(outcome: SubmitOutcome): void {
    const before = this.outcome;
    this.outcome = outcome;
    this.journal.undoable(() => {
      this.outcome = before;
    });
  }

  /** Takes back everything scripts did since `begin`, and enters again what the person did. */
  takeBack(): void {
    this.queue.length = 0;
    this.journal.rollBack(0);
    for (const enter of this.#entered) enter();
  }

  /** Between steps nothing waits and nothing is gathered; what becomes final with the next step is still to be done. */
  checkpoint(): Restore {
    const after = [...this.#after];
    return () => {
      this.#entered = [];
      this.#after = [...after];
      this.journal.forget();
    };
  }

  /** What has been gathered for the answer; it begins again. */
  take(): Pick<Progress, 'messages' | 'logs' | 'toParent' | 'errors' | 'outcome'> {
    const { messages, logs, toParent, errors, outcome } = this;
    this.messages = [];
    this.logs = [];
    this.toParent = [];
    this.errors = [];
    this.outcome = null;
    return { messages, logs, toParent, errors, outcome };
  }
}
