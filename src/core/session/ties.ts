/** What behaviours tie to a form: handlers to events, and rules. */
import type { Value } from '../form/value';
import type { EventType } from './entries';
import type { FailureCode } from './errors';
import type { Aspect } from './parts';
import type { Probe } from './probe';
import type { Row, Rows } from './rows';

/** A behaviour as the compiler gives it: a function body with probes, or the reason why there is none. */
export interface CompiledScript {
  /** Its file name without the ending, such as `10-pilot`. */
  name: string;
  title: string;
  /** Null when it does not parse; then `failure` says why. */
  code: string | null;
  failure: { code: FailureCode; says: string; line: number | null } | null;
}

export interface Behaviour {
  name: string;
  title: string;
  index: number;
  probe: Probe;
}

interface Tie {
  behaviour: Behaviour;
  /** Behaviours first, then the order in which they were tied. */
  order: number;
  line: number;
  /** The step in which it last ran, and how often it has run in that step (semantics 17). */
  step: number;
  runs: number;
}

export interface Handler extends Tie {
  sort: 'handler';
  event: EventType;
  /** What it is tied to, as `keyOf` spells it. */
  keys: readonly string[];
  run: (event: unknown) => unknown;
  /** What happens when it starts again while an earlier run of it is open (semantics 22). */
  overlap: 'supersede' | 'all';
  /** Tied while a record was loaded, so it ends with that record (edges 14). */
  ofRecord: boolean;
  /** How often it ran in this step, row by row. */
  rowRuns: Map<Row, number> | null;
}

export interface Rule extends Tie {
  sort: 'rule';
  title: string;
  run: (row: unknown) => unknown;
  /** The row it is bound to, for a rule that holds for each row. */
  row: Row | null;
  /** What its last good run said. */
  words: Map<Aspect, { value: Value; line: number }>;
  /** What its last run read, with what it saw there; null before its first run. */
  reads: Map<Aspect, Value> | null;
  /** Runs at its turn even when nothing it read differs. */
  forced: boolean;
  ofRecord: boolean;
}

/** A rule for each row, before it is bound to one. */
export interface EachRule {
  rows: Rows;
  behaviour: Behaviour;
  title: string;
  run: (row: unknown) => unknown;
  line: number;
  order: number;
  ofRecord: boolean;
}

export function ruleOf(made: Omit<EachRule, 'rows'>, row: Row | null): Rule {
  const { behaviour, title, run, line, order, ofRecord } = made;
  return { sort: 'rule', behaviour, title, run, line, order, ofRecord, row, words: new Map(), reads: null, forced: false, step: 0, runs: 0 };
}
