/**
 * What goes into a session and what comes out: openings, steps, answers. Plain JSON all of it, so that the same
 * strings go to the browser's worker, to the server and to the command line. The Zod schemas that hosts parse with
 * stand in `schema.ts`; this file needs no Zod.
 */
import type { Field, Option } from '../form/definition';
import type { ServiceMood } from '../form/service';
import type { Value, Values } from '../form/value';
import type { Entry } from './entries';
import type { Failure } from '../wire/failures';
import type { ASPECTS, ToldName } from '../wire/aspects';
import type { PartSort } from '../wire/layout';
import type { Line } from '../wire/line';

/** How a session starts. */
export interface Opening {
  /** Who opens it. */
  person: { key: string; name: string; roles: readonly string[] };
  /** The record opened, or null for a new entry. */
  record: { id: string; values: Values } | null;
  launch: Values;
  /** The session's clock at the start, in milliseconds since 1970-01-01T00:00:00Z. */
  clock: number;
  /** The time zone, an IANA name: what `Temporal.Now` gives and where moments are shown; UTC unless said. */
  zone?: string | undefined;
  /** Seeds `Math.random`. */
  seed: number;
  /** The id a new record gets when it is saved. */
  newId: string;
  /** The form is only looked at: scripts run, people change nothing. */
  viewing?: boolean | undefined;
  /** The records that `next` and `previous` go through, in order. */
  records?: { id: string; values: Values }[] | undefined;
  /** The form that opened this one, as it was then. */
  parent?: { form: string; record: string; fields: Field[]; values: Values } | null | undefined;
  /** How services, by `name` or `name.function`, behave in this session instead of as defined. */
  services?: Record<string, ServiceMood> | undefined;
}

/**
 * One thing a person does, by the key that names it. Fields of rows are named by place, such as `cargo[0].weight`. Two
 * steps are not a person's: `answer` is a service that somebody answers by hand, `fromChild` a value that a form opened
 * from this one hands back.
 */
export interface Steps {
  set: { set: string; to: Value };
  input: { input: string; to: Value };
  focus: { focus: string };
  blur: { blur: string };
  click: { click: string };
  wait: { wait: number };
  turnTo: { turnTo: string };
  /** Several rows at once when a list is given. */
  addRow: { addRow: string; with?: Values | Values[] | undefined };
  removeRow: { removeRow: string };
  moveRow: { moveRow: string; to: number };
  next: { next: true };
  previous: { previous: true };
  answer: {
    answer: string;
    with?: Value | undefined;
    fails?: string | undefined;
    after?: number | undefined;
    /** As the service itself would answer, whatever its delay. */
    usual?: boolean | undefined;
    /** Which of the calls of this name that wait, the oldest being 0. */
    which?: number | undefined;
  };
  fromChild: { fromChild: string; to: Value };
  submit: { submit: true };
}
export type StepKind = keyof Steps;
export type Step = Steps[StepKind];

/** Every kind of step, with whether its key names a part. */
export const STEP_KINDS: Readonly<Record<StepKind, { namesPart: boolean }>> = {
  set: { namesPart: true },
  input: { namesPart: true },
  focus: { namesPart: true },
  blur: { namesPart: true },
  click: { namesPart: true },
  wait: { namesPart: false },
  turnTo: { namesPart: true },
  addRow: { namesPart: true },
  removeRow: { namesPart: true },
  moveRow: { namesPart: true },
  next: { namesPart: false },
  previous: { namesPart: false },
  answer: { namesPart: false },
  fromChild: { namesPart: true },
  submit: { namesPart: false },
};

/** What kind of step this is. */
export function kindOfStep(step: Step): StepKind {
  for (const key in step) if (Object.hasOwn(STEP_KINDS, key)) return key as StepKind;
  throw new Error(`no step has only ${Object.keys(step).join(', ')}`);
}

/** A step at a time of the session's clock, in milliseconds after the opening; without one the clock stands still. */
export type TimedStep = Step & { at?: number | undefined };

export type { PartSort };

/** The state of a part as people meet it. What a sort of part does not have is absent. */
export interface PartState extends Partial<SaidState> {
  sort: PartSort;
  shown: boolean;
  onScreen: boolean;
  locked: boolean;
  editable: boolean;
  /** What the last check found, until the field is mended. */
  fault?: string | null;
  /** The value is not among the options offered and came with the record. */
  orphan?: boolean;
  /** What the record brought and is no value of this kind; saved again as it is until the field is set. Else null. */
  stray?: Value;
}

/** What an aspect is, by what it takes. */
interface Said {
  value: Value;
  'yes or no': boolean;
  'text or nothing': string | null;
  text: string;
  /** Null while the options of the definition hold. */
  options: readonly Option[] | null;
  /** The stage of a track; null for none. */
  stage: string | null;
}

/** What can be said of a part; of a rows field the value is reported with the rows. */
type SaidState = { [A in ToldName]: Said[(typeof ASPECTS)[A]['takes']] };

/**
 * A row: its own aspects, its values, and of its cells what differs from the definition. What is absent from a cell
 * stands as the definition says.
 */
export interface RowState {
  shown: boolean;
  locked: boolean;
  /** What is worth a warning about the row as a whole, or wrong with it; absent while nothing ever was. */
  warning?: string | null;
  problem?: string | null;
  values: Values;
  cells: Record<string, CellState>;
}

export type CellState = Partial<
  Omit<PartState, 'sort' | 'value' | 'label' | 'stage' | 'onScreen' | 'editable' | 'stray'>
>;

/** What changed among the rows of a field: their order by id when rows came, went or moved, and the rows that changed. */
export interface RowsChange {
  order?: string[];
  /** They are those of another record: what was reported under these ids was of other rows. */
  anew?: true;
  /** `values` and `cells` hold only what changed. */
  rows: Record<string, Partial<RowState>>;
}

/** A run that waits, for people and the bench. */
export interface OpenRunState {
  behaviour: string;
  line: Line;
  /** The part whose event started it. */
  part: string | null;
  /** What it waits for; `due` on the session's clock, null when somebody answers by hand. */
  calls: { name: string; args: Value; since: number; due: number | null }[];
}

export interface Message {
  text: string;
  tone: 'info' | 'warning' | 'error';
  behaviour: string;
}

export interface LogLine {
  behaviour: string;
  line: Line;
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

/** An invariant that does not hold. */
export interface Broken {
  title: string;
  behaviour: string;
  /** Where it stands. */
  line: Line;
  /** The row for which it does not hold, as `cargo#3`; null for one of the whole form. */
  row: string | null;
}

/** The result of a step. */
export interface Answer {
  /** Why the step could not be done by a person; then nothing else happened. */
  refused: string | null;
  /** The parts that changed, with the aspects that did. */
  changes: Record<string, Partial<PartState>>;
  /** What changed in rows fields. */
  rows: Record<string, RowsChange>;
  /** The record that is open, since `next` and `previous` change it; null for a new entry. */
  record: string | null;
  /** The session's clock, in milliseconds since 1970-01-01T00:00:00Z. */
  clock: number;
  /** Runs that wait. */
  waiting: OpenRunState[];
  /** Values to be set in the parent, since the last answer. */
  toParent: { set: string; to: Value }[];
  page: string | null;
  /** What stands instead of the form's body, and whether the last answer can no longer be changed. */
  replaced: { text: string; final: boolean } | null;
  /** The message that a rule holds. */
  notice: { text: string; tone: Message['tone'] } | null;
  messages: Message[];
  log: LogLine[];
  errors: Failure[];
  /** Behaviours that failed in their last run of some handler or rule; the bar on the form names them. */
  failing: Failure[];
  /** Invariants that do not hold as the step leaves the form. Nothing for people. */
  broken: Broken[];
  submit: SubmitOutcome | null;
  /** Whether any value differs from the record as opened or saved. */
  changed: boolean;
  /** What happened in order; only from a traced session. */
  tape: Entry[];
}
