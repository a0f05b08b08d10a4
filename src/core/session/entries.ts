/**
 * What the tape is made of. Entries are numbered in order; `cause` is the number of the entry that brought one about,
 * so a tape is a forest whose roots are the opening and the steps. Plain JSON, the same to the byte wherever the same
 * steps are done, which is why nothing here is measured in real time.
 */
import type { Value, Values } from '../form/value';
import type { Failure } from '../wire/failures';
import type { By, EventType } from '../wire/layout';
import type { SaidName } from '../wire/aspects';
import type { Message, PartSort, Step, SubmitOutcome } from './step';
import type { Line } from '../wire/line';

interface Base {
  /** Its number on the tape. */
  n: number;
  /** The number of what brought it about; null for the opening and for steps. */
  cause: number | null;
}

export type Entry = Base &
  (
    | { type: 'opened'; record: string | null; person: string; clock: number; values: Values }
    | { type: 'step'; step: Step; clock: number; by: By }
    | { type: 'refused'; why: string }
    | {
        type: 'event';
        event: EventType;
        part: string | null;
        value: Value;
        previous: Value;
        by: By;
      }
    | RunEntry
    | EffectEntry
    | { type: 'conflict'; part: string; aspect: string; between: string[]; wins: string }
    | { type: 'log'; behaviour: string; line: Line; values: readonly Value[]; struck: boolean }
    | ({ type: 'message'; line: Line } & Message)
    | { type: 'error'; failure: Failure }
    | { type: 'takenBack'; what: string }
    | { type: 'checked'; faults: { part: string; says: string }[] }
    | ({ type: 'outcome' } & SubmitOutcome)
    | {
        type: 'rows';
        part: string;
        did: 'added' | 'removed' | 'moved';
        row: string;
        place: number;
        by: By;
        line: Line | null;
      }
    | { type: 'call'; name: string; args: Value; due: number | null; line: Line }
    | {
        type: 'answered';
        name: string;
        with: Value;
        fails: string | null;
        clock: number;
        call: number | null;
      }
    | {
        type: 'superseded';
        behaviour: string;
        title: string;
        line: Line;
        why: 'started again' | 'another record';
      }
    | { type: 'toParent'; set: string; to: Value; line: Line }
    | { type: 'page'; from: string | null; to: string | null; line: Line | null }
  );

/** A value that a traced run reports. */
export interface Valued {
  line: Line;
  /** The condition, what it was assigned to, or `return`; the first 80 characters of its source. */
  what: string;
  value: Value;
  /** Whether it decided where the script went on. */
  condition?: true;
}

export interface RunEntry extends Base {
  type: 'run';
  sort: 'handler' | 'rule' | 'invariant';
  behaviour: string;
  /** Of an invariant: the row it ran for, null for one of the whole form. */
  row?: string | null;
  /** The title of the rule or invariant, or the event of the handler. */
  title: string;
  /** Where it is tied, 1-based. */
  line: Line;
  /** `open` when it went on waiting, `broken` for an invariant that does not hold. */
  outcome: 'ended' | 'failed' | 'open' | 'broken';
  /** The fuel it used. */
  fuel: number;
  /** What it read, each with what it saw first; a rule depends on these. */
  reads: { part: string; aspect: string; value: Value }[];
  /** What it asked that is no aspect: how the form was opened and by whom, a value as it was saved or before, chance. */
  asked: string[];
  /** How often each line ran, as pairs of line and count. */
  lines: [Line, number][];
  /** Values assigned and conditions met, in order; the last ones of a long run are dropped and `cut` says so. */
  values: Valued[];
  cut: boolean;
}

export interface EffectEntry extends Base {
  type: 'effect';
  part: string;
  sort: PartSort;
  aspect: SaidName;
  from: Value;
  to: Value;
  by: By;
  /** The line that did it; null for persons and the form, and where a rule fell silent. */
  line: Line | null;
  /** A rule no longer says it, so what stood below shows again. */
  withdrawn?: true;
  /** The rule whose word shows again. */
  again?: { behaviour: string; title: string; line: Line };
  /** A later rule says otherwise, so it does not show. */
  covered?: true;
  /** The run failed and this was undone. */
  struck?: true;
}
