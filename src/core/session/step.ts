/**
 * What goes into a session and what comes out: openings, steps, answers. Plain JSON all of it, so that the same
 * strings go to the browser's worker, to the server and to the command line. The Zod schemas that hosts parse with
 * stand in `schema.ts`; this file is types alone and costs the machine nothing.
 */
import type { Option } from '../form/definition';
import type { Value, Values } from '../form/value';
import type { Entry } from './entries';
import type { Failure } from './errors';

/** How a session starts. */
export interface Opening {
  /** Who opens it. */
  person: { key: string; name: string; role: string };
  /** The record opened, or null for a new entry. */
  record: { id: string; values: Values } | null;
  launch: Values;
  /** The session's clock at the start, in milliseconds since 1970-01-01T00:00:00Z. */
  clock: number;
  /** Seeds `Math.random`. */
  seed: number;
  /** The id a new record gets when it is saved. */
  newId: string;
}

/** One thing a person does. */
export type Step =
  | { set: string; to: Value }
  | { input: string; to: Value }
  | { focus: string }
  | { blur: string }
  | { click: string }
  | { wait: number }
  | { turnTo: string }
  | { submit: true };

/** A step at a time of the session's clock, in milliseconds after the opening; without one the clock stands still. */
export type TimedStep = Step & { at?: number | undefined };

export type PartSort = 'form' | 'page' | 'section' | 'field' | 'button';

/** The state of a part as people meet it. What a sort of part does not have is absent. */
export interface PartState {
  sort: PartSort;
  shown: boolean;
  onScreen: boolean;
  locked: boolean;
  editable: boolean;
  label?: string;
  value?: Value;
  required?: boolean;
  /** Null while the options of the definition stand. */
  options?: readonly Option[] | null;
  hint?: string | null;
  problem?: string | null;
  /** What the last check found, until the field is mended. */
  fault?: string | null;
  /** The value is not among the options offered and came with the record. */
  orphan?: boolean;
  /** What the record brought and is no value of this kind; saved again as it is until the field is set. Else null. */
  stray?: Value;
}

export interface Message {
  text: string;
  tone: 'info' | 'warning' | 'error';
  behaviour: string;
}

export interface LogLine {
  behaviour: string;
  line: number;
  values: readonly Value[];
}

export interface SubmitOutcome {
  saved: boolean;
  /** The part of the first stop; null when it named none, or when nothing stopped it. */
  stoppedBy: string | null;
  /** All that stopped it, as read by the person. */
  stops: { part: string | null; says: string }[];
  id: string | null;
  values: Values;
  /** Fields left out of the record because they were off screen (`omit`). */
  without: string[];
}

/** What came of a step. */
export interface Answer {
  /** Why the step could not be done by a person; then nothing else happened. */
  refused: string | null;
  /** The parts that changed, with the aspects that did. */
  changes: Record<string, Partial<PartState>>;
  page: string | null;
  /** What stands instead of the form's body. */
  replaced: string | null;
  /** The message that a rule holds. */
  notice: { text: string; tone: Message['tone'] } | null;
  messages: Message[];
  log: LogLine[];
  errors: Failure[];
  /** Behaviours that failed in their last run of some handler or rule; the bar on the form names them. */
  failing: Failure[];
  submit: SubmitOutcome | null;
  /** Whether any value differs from the record as opened or saved. */
  changed: boolean;
  /** What happened in order; only from a traced session. */
  tape: Entry[];
}
