/** The answer to why an aspect of a part is what it is: who decided it, where, under which conditions, and from what. */
import type { Value } from '../form/value';
import type { Run } from '../tape/tape';
import type { Line } from '../wire/line';
import type { Comparison } from './comparison';
import type { NearMiss } from './near-miss';

/** A condition that was looked at on the way, or a statement that compares something. */
export interface ConditionMet {
  script: string;
  site: number;
  line: number;
  text: string;
  is: 'condition' | 'switch' | 'statement';
  /** What it came to; of a `switch`, what was looked at; null of a statement. */
  came: Value;
  comparisons: Comparison[];
}

/** Something a decision depends on. */
export type Cause =
  /** An aspect that was read; `entry` is the effect that made it so, null where the definition or the record did. */
  | { is: 'read'; part: string; aspect: string; value: Value; entry: number | null }
  /** A row that somebody added, moved or removed; `entry` is null for one that the record brought. */
  | {
      is: 'row';
      part: string;
      did: 'brought' | 'added' | 'moved' | 'removed';
      entry: number | null;
    }
  /** The event that a handler ran on. */
  | { is: 'event'; event: string; part: string | null; value: Value; entry: number }
  | { is: 'answer'; name: string; value: Value; fails: string | null; entry: number }
  /** How the form was opened: `person`, `launch`, `isNew`, `record`, or a value of the parent's. */
  | { is: 'opening'; what: string; value: Value }
  | { is: 'clock' | 'random' }
  /** A variable of a script that outlives runs. */
  | { is: 'variable'; script: string; name: string };

export type Decided =
  /** A script said it. */
  | 'said'
  /** A rule no longer says otherwise, so what stands below shows: another rule's word, a handler's or the definition. */
  | 'withdrawn'
  /** A person entered it. */
  | 'entered'
  /** The form itself corrected it: no longer offered, or off screen. */
  | 'corrected'
  /** It came with its row, when that was added. */
  | 'row'
  /** It came with the record. */
  | 'record'
  /** Nobody said anything: the definition holds. */
  | 'definition'
  /** It is made up of others: a sum of its cells, what is on screen of what is shown. */
  | 'derived'
  /** A check of the form found it wrong. */
  | 'checked'
  /** Of an invariant: it holds, or does not. */
  | 'judged'
  /** Of a submission: a handler stopped it. */
  | 'stopped'
  | 'saved'
  /** The step could not be done. */
  | 'refused'
  /** Nobody submitted. */
  | 'never';

/** Something that a script said of it, or would have, and that no longer counts. */
export interface TakenBack {
  /** Its run failed; another run of the same handler was started; all that scripts did in the step was undone. */
  why: 'failed' | 'superseded' | 'circle';
  run: RunMet;
  /** What it had said, and where; null where its run failed before. */
  said: { value: Value; line: Line | null } | null;
  /** Why it failed, and where. */
  says: string | null;
  failedAt: Line | null;
}

export interface RunMet {
  entry: number;
  sort: Run['sort'];
  behaviour: string;
  title: string;
}

export interface Decision {
  part: string;
  aspect: string;
  value: Value;
  decided: Decided;
  /** The effect on the tape; null where there was none. */
  entry: number | null;
  /** The step in which it was decided, 0 being the opening; null where no entry of the tape did. */
  step: number | null;
  /** The run that decided it. */
  run: RunMet | null;
  line: Line | null;
  /** The statement on that line, and the comparisons in it. */
  statement: string | null;
  comparisons: Comparison[];
  /** Conditions that led there, and comparisons on the way. */
  conditions: ConditionMet[];
  /** What is often wrong with comparisons that came out as these did. */
  near: NearMiss[];
  causes: Cause[];
  /** What it depends on stood so right before this entry; at the end of the tape for null. */
  asOf: number | null;
  takenBack: TakenBack | null;
  /** The last step that would have changed it and was refused, with the reason. */
  refused: { entry: number; why: string } | null;
}

/** A decision in which nothing is known yet but what was asked. */
export function nobodys(part: string, aspect: string, value: Value, decided: Decided): Decision {
  return {
    part,
    aspect,
    value,
    decided,
    entry: null,
    step: null,
    run: null,
    line: null,
    statement: null,
    comparisons: [],
    conditions: [],
    near: [],
    causes: [],
    asOf: null,
    takenBack: null,
    refused: null,
  };
}

export function runMet({ n, sort, behaviour, title }: Run): RunMet {
  return { entry: n, sort, behaviour, title };
}
