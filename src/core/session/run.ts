/** One run of a handler or rule, or one stretch of it, while it lasts: what it has read, said and asked for so far. */
import type { Value } from '../form/value';
import type { Failure, ScriptError } from '../wire/failures';
import type { Aspect, RunRecord } from './aspects';
import type { Entry, RunEntry } from './entries';
import type { Part } from './parts';
import type { Event } from './progress';
import type { Row } from './rows';
import type { Claim, Said } from './rule-claims';
import type { Message } from './step';
import { NOTHING_CLAIMED, type Handler, type Rule } from './tie';
import type { OpenRun } from './waiting';
import { Writes } from './writing';
import type { Line } from '../wire/line';

/** What is remembered of a run, or of one stretch of it, while it lasts. */
export class Run {
  readonly handler: Handler | null;
  readonly rule: Rule | null;
  /** What a handler writes is in place at once; a rule's values wait. */
  readonly writes: Writes | null;
  /** What a rule claims, gathered and put in place together at its end. */
  readonly #said: Said | null;
  /** What a rule read, with the values it saw; null for a handler. */
  readonly reads: Map<Aspect, Value> | null;
  /** The same of whatever runs, and what it asked that is no aspect, for its entry; null where nothing is taped. */
  readonly noticed: { reads: Map<Aspect, Value>; asked: Set<string> } | null;
  /** Parts that a handler read whose event can be stopped. */
  readonly noted: Set<Part> | null;
  messages: { message: Message; line: Line }[] | null = null;
  toParent: { set: string; to: Value; line: Line }[] | null = null;
  /** What a handler claimed, for when it is superseded. */
  claims: OpenRun['claims'] | null = null;
  wantsSubmit = false;
  /** A wrong use stays a failure even where the script catches it, or whatever its end says. */
  fault: ScriptError | null = null;

  constructor(
    readonly number: number,
    tie: Handler | Rule,
    readonly trigger: Trigger,
    readonly record: RunRecord,
    readonly entry: (RunEntry & Entry) | null,
    /** What waits, once it does. */
    public open: OpenRun | null,
  ) {
    this.handler = tie.sort === 'handler' ? tie : null;
    this.rule = tie.sort === 'handler' ? null : tie;
    const ofRule = tie.sort !== 'handler';
    this.writes = ofRule ? null : new Writes(record, entry?.n ?? null);
    this.#said = ofRule ? new Map() : null;
    this.reads = ofRule ? new Map() : null;
    this.noticed = entry === null ? null : { reads: this.reads ?? new Map(), asked: new Set() };
    this.noted = trigger.stops ? new Set() : null;
  }

  get said(): ReadonlyMap<Aspect, Claim> {
    return this.#said ?? NOTHING_CLAIMED;
  }

  /** What a rule claims of an aspect; null takes it back. */
  claim(aspect: Aspect, claim: Claim | null): void {
    if (claim === null) this.#said!.delete(aspect);
    else this.#said!.set(aspect, claim);
  }

  /** What is seen of an aspect when it is first read. */
  saw(aspect: Aspect, value: Value): void {
    const reads = this.reads ?? this.noticed?.reads;
    if (reads !== undefined && !reads.has(aspect)) reads.set(aspect, value);
  }
}

export interface RunResult {
  failure: Failure | null;
  /** An invariant does not hold. */
  broken: boolean;
  /** The events that follow. */
  events: readonly Event[];
}

/** What made a tie run: for its title, for what supersedes what, and for printing cycles. */
export interface Trigger {
  title: string;
  part: Part | null;
  row: Row | null;
  before: RunRecord | null;
  cause: number | null;
  /** Its event can be stopped. */
  stops: boolean;
}
