/**
 * What the two ends of a machine agree on: the session outside, the scripts and their faces inside. Both see 8 KiB of
 * memory. One says what it wants in the cells below and calls; the other answers in the same cells. A value is a tag
 * and a payload. The ends themselves are `guest/wire.ts` and `sandbox/wire.ts`.
 */

/** Bytes that both ends see. */
export const SHARED_BYTES = 8192;

/** Places in the memory, as an array of 32-bit integers. Between them stand the doubles of `Double`. */
export const enum Cell {
  /** What is asked, an `Op`; after a run how it ended, a `Came`. */
  Op = 0,
  /** The aspect meant: the number of its part and, in the lowest bits, a `Slot`. */
  Aspect = 1,
  Tag = 2,
  Payload = 3,
  /** The line of the script, 1-based. */
  Line = 6,
  /** What is said further: a column, a number, a failure's code. */
  More = 7,
  /** What the run reports: `Tracing`, added up. */
  Traced = 8,
  /** Where the trace ends. */
  TraceEnd = 9,
  /** The fuel a run used. */
  Fuel = 10,
  /** The tie to run: a function that a script handed over. */
  Tie = 11,
  /** The number of the run, by which it is known while it waits. */
  Run = 12,
  /** What a run is given, a `Given`. */
  Given = 13,
  /** The event: its part (−1 for the form), its row with its field and id (−1 for none), who made it, its number. */
  Part = 14,
  Row = 15,
  RowField = 16,
  RowId = 17,
  By = 18,
  Event = 19,
  ValueTag = 20,
  ValuePayload = 21,
  PreviousTag = 24,
  PreviousPayload = 25,
  ExtraTag = 28,
  ExtraPayload = 29,
  /** The call that has ended, for a run that goes on. */
  Call = 30,
  /** 1 while somebody looks for the script that got stuck. */
  Watched = 31,
  /** The mutant that is switched on, from 1; 0 for none. */
  Mutant = 40,
  /** Traces stand from here to the end of the memory. */
  Trace = 64,
}

/** Places in the same memory, as an array of doubles: each is two integers. */
export const enum Double {
  /** Beside `Tag` and `Payload`. */
  Answer = 2,
  /** Beside `ValueTag` and `ValuePayload`. */
  Value = 11,
  /** Beside `PreviousTag` and `PreviousPayload`. */
  Previous = 13,
  /** The session's clock in milliseconds since 1970-01-01T00:00:00Z; NaN before a form is open. */
  Clock = 16,
}

/** The most mutants that can be told apart: in an untraced run a bit for each that was reached stands where traces would. */
export const MUTANTS = 60_000;

/** Where a trace has to be emptied before it goes on. */
export const TRACE_LIMIT = SHARED_BYTES / 4 - 8;

/** What scripts ask of the session. */
export const enum Op {
  Read = 1,
  Say = 2,
  /** A text of the scripts' that the session has not met yet; it gets the next number. */
  NewText = 3,
  /** A text too long to be numbered; it is used once. */
  LooseText = 4,
  /** One of the acts of `acts.ts`, as JSON. */
  Act = 5,
  Random = 6,
  /** The trace is full. */
  Trace = 7,
  /** Where the script is, for whoever looks for one that got stuck. */
  Tell = 8,
  /** A detailed run reports something, a `Report`. */
  Detail = 9,
}

/** How a value is told. */
export const enum Tag {
  Undefined = 0,
  Null = 1,
  False = 2,
  True = 3,
  /** A double, in the float beside the payload. */
  Number = 4,
  /** A text by its number. */
  Text = 5,
  /** Plain JSON, as a text by its number. */
  Json = 6,
  LooseText = 7,
  LooseJson = 8,
  /** A frozen value that the scripts have already, by its number. */
  Kept = 9,
  /** A loose JSON that both keep under the next number. */
  KeepJson = 10,
  /** What is no value at all, by a `Strange`. */
  Strange = 11,
  /** It cannot be done: the code stands in `More`, the words in the payload of a text or loose text. */
  Fault = 12,
  LooseFault = 13,
  /** A whole number, in the payload; in traces only. */
  Integer = 14,
}

export const enum Strange {
  Function = 0,
  Temporal = 1,
  Object = 2,
}

/** What a run is given. */
export const enum Given {
  Nothing = 0,
  Row = 1,
  Event = 2,
}

/** How a run came back. */
export const enum Came {
  Ended = 0,
  /** It waits. */
  Open = 1,
  /** The failure's code stands in `More`, its words as a fault's. */
  Failed = 2,
  /** An invariant that does not hold. */
  Broken = 3,
}

/** The aspects by number: `(part << SLOT_BITS) | slot`. Those of the form itself stand on part 0. */
export const SLOT_BITS = 5;

export const enum Slot {
  Value = 0,
  Shown = 1,
  Locked = 2,
  Required = 3,
  Options = 4,
  Hint = 5,
  Warning = 6,
  Problem = 7,
  Label = 8,
  Stage = 9,
  OnScreen = 10,
  Editable = 11,
  Previous = 12,
  Initial = 13,
  Orphan = 14,
  OptionLabel = 15,
  /** Of a rows field: a number that stands for the list of its rows as it is. */
  Rows = 16,
  Count = 17,
  /** The sum of the column in `More`. */
  Sum = 18,
  /** Of a row. */
  Values = 19,
  Index = 20,
  /** Of the form. */
  Changed = 21,
  Message = 22,
  Replaced = 23,
  IsNew = 24,
  Record = 25,
  Person = 26,
  Launch = 27,
  Viewing = 28,
  /** The session’s time zone. */
  Zone = 29,
}

/** One more than the largest slot. */
export const SLOTS = 30;

/** Longer texts get no number. */
export const LONGEST_NUMBERED = 256;

/** Both lists of texts are cut back when they exceed so many, or so many characters. */
export const MOST_TEXTS = 50_000;
export const MOST_CHARACTERS = 2_000_000;

/** Under this key stands, inside JSON, what JSON has no words for. */
export const STRANGE_KEY = '\u0001';

/** In the order of their numbers. */
export const BY = ['person', 'script', 'form'] as const;
export type By = (typeof BY)[number];

/** Events, each with what it is tied to. */
export const TIED_TO = {
  load: 'form',
  submit: 'form',
  saved: 'form',
  pageChange: 'form',
  change: 'field',
  input: 'field',
  focus: 'field',
  blur: 'field',
  click: 'button',
  rowAdded: 'rows',
  rowRemoved: 'rows',
} as const satisfies Record<string, 'form' | 'field' | 'button' | 'rows'>;

export type EventType = keyof typeof TIED_TO;

/** What holds by itself, depending on what it reads: a rule says things, an invariant whether it holds. */
export type RuleSort = 'rule' | 'invariant';

export type PartSort = 'form' | 'page' | 'section' | 'field' | 'button' | 'track' | 'row';

/** Assigned values and conditions kept per run; a loop of a thousand rounds would drown the tape. */
export const VALUES_KEPT = 200;

/** What a detailed run reports, in the cell `More` of an `Op.Detail`; the site stands in `Line`, the activation in `Aspect`. */
export const enum Report {
  /** A function is entered, with its parameters. */
  Enter = 1,
  Leave = 2,
  /** A function waits, and goes on. */
  Suspend = 3,
  Resume = 4,
  /** A statement, with the variables in sight. */
  Statement = 5,
  /** A condition begins; its value comes with the next one. */
  Begin = 6,
  /** The answer in `More` says with 1 that it has to come out the other way round. */
  Condition = 7,
  /** What a `switch` looks at. */
  Switch = 8,
  /** A side of a comparison, or what it came to. */
  Operand = 9,
  /** A value that was assigned or returned, by the number of its expression in `Aspect`. */
  Value = 10,
  /** What was asked on the way begins and has ended, by its id in `Aspect`. */
  Ask = 11,
  Asked = 12,
  /** It failed, with the reason. */
  AskFailed = 13,
}

/** What a run reports, in the cell `Traced`: lines and values, every detail, what is asked on the way. */
export const enum Tracing {
  Lines = 1,
  Details = 2,
  Asked = 4,
}
