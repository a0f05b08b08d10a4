/** What behaviours tie to a form: handlers to events, and rules. */
import type { Value } from '../form/value';
import type { EventType } from './entries';
import type { FailureCode } from './errors';
import type { Aspect, Part } from './parts';
import type { Probe } from './probe';

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
  /** Empty for events of the form as a whole. */
  parts: readonly Part[];
  run: (event: unknown) => unknown;
}

export interface Rule extends Tie {
  sort: 'rule';
  title: string;
  run: () => unknown;
  /** What its last good run said. */
  words: Map<Aspect, { value: Value; line: number }>;
  /** What its last run read, with what it saw there; null before its first run. */
  reads: Map<Aspect, Value> | null;
  /** Runs at its turn even when nothing it read differs. */
  forced: boolean;
}
