/** What behaviours tie to a form: handlers to events, and rules. The functions themselves stay with the scripts. */
import type { Value } from '../form/value';
import type { FailureCode } from '../wire/failures';
import type { EventType, RuleSort } from '../wire/layout';
import type { Aspect, RunRecord } from './aspects';
import type { Row, Rows } from './rows';
import type { Line } from '../wire/line';

/** A behaviour or a shared module as the compiler gives it: a function body with probes, or the reason why there is none. */
export interface CompiledScript {
  /** Its name without the ending, such as `10-pilot` or `shared/dates`. */
  name: string;
  title: string;
  /** Null when it does not parse; then `failure` says why. */
  code: string | null;
  /** The texts of the expressions that a traced script reports, by the numbers in its code. */
  expressions: readonly string[];
  /** Which of them are conditions; the others are what is assigned and returned. */
  conditions: readonly number[];
  failure: { code: FailureCode; says: string; line: Line | null } | null;
}

/** What a script reports that is not traced, or does not parse. */
export const NOTHING_REPORTED: Pick<CompiledScript, 'expressions' | 'conditions'> = {
  expressions: [],
  conditions: [],
};

export interface Behaviour {
  name: string;
  title: string;
  /** Its place among the scripts, from 0. */
  index: number;
}

interface Tie {
  /** The function tied, as the scripts' end numbers it. */
  number: number;
  behaviour: Behaviour;
  /** Behaviours first, then the order in which they were tied. */
  order: number;
  line: Line;
  /** The step in which it last ran, and how often it has run in that step; not undone, since a run that failed has run. */
  step: number;
  runs: number;
}

export interface Handler extends Tie {
  sort: 'handler';
  event: EventType;
  /** What it is tied to, as `keyOf` spells it. */
  keys: readonly string[];
  /** What happens when it starts again while an earlier run of it is open. */
  overlap: 'supersede' | 'all';
  /** How often it ran in this step, row by row. */
  rowRuns: Map<Row, number> | null;
}

/** How a rule stands. */
export type RuleState =
  /** It has not run for the record that is open: it runs at its turn, whatever there is to read. */
  | 'new'
  /** What its last run said holds, and nothing that it read has been touched since. */
  | 'rests'
  /** Something it read was touched. Whether that differs by value is asked at its turn: changed and changed back is no reason to run. */
  | 'stirred'
  /** It runs at its turn even when nothing it read differs, since what it wrote was written over by the form. */
  | 'forced';

export interface Rule extends Tie {
  /** An invariant depends on what it reads, as a rule does. It says nothing, and runs after the step has settled (`invariants.ts`). */
  sort: RuleSort;
  title: string;
  /** The row it is bound to, for a rule that holds for each row. */
  row: Row | null;
  /** What its last good run said. */
  claims: ReadonlyMap<Aspect, { value: Value; line: Line }>;
  /** What its last run read, with what it saw there; null before its first run. Replaced, never changed in place. */
  reads: ReadonlyMap<Aspect, Value> | null;
  state: RuleState;
  /** What it drew last in the queue of rules that wait (`stirred.ts`); 0 while it does not wait. */
  ticket: number;
  /** Its last good run, in whose name its values are put in place; null before one. */
  last: { record: RunRecord; entry: number | null } | null;
}

/** A rule for each row, before it is bound to one. */
export interface EachRule {
  rows: Rows;
  made: MadeRule;
}

export type MadeRule = Pick<Rule, 'sort' | 'number' | 'behaviour' | 'title' | 'line' | 'order'>;

/** Shared by all rules that have said nothing yet. */
export const NOTHING_CLAIMED: Rule['claims'] = new Map();

export function ruleOf(
  { sort, number, behaviour, title, line, order }: MadeRule,
  row: Row | null,
): Rule {
  return {
    sort,
    number,
    behaviour,
    title,
    line,
    order,
    row,
    claims: NOTHING_CLAIMED,
    reads: null,
    state: 'new',
    ticket: 0,
    last: null,
    step: 0,
    runs: 0,
  };
}

/** What scripts tied at their top level: the beginning of every session with them. */
export type Tied =
  | {
      is: 'handler';
      number: number;
      behaviour: Behaviour;
      event: EventType;
      keys: readonly string[];
      overlap: Handler['overlap'];
      line: Line;
      order: number;
    }
  | {
      is: 'rule';
      sort: RuleSort;
      number: number;
      behaviour: Behaviour;
      title: string;
      line: Line;
      order: number;
      rows: string | null;
    };
