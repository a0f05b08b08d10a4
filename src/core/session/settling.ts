/**
 * From a step to rest (semantics 15, 17): events first in first out, each with its handlers; when none is left, rules
 * that read something that differs, in order; when those are still, the form's own corrections (semantics 6, 11).
 */
import { emptyOf } from '../form/kinds';
import { equal, isEmpty, type Value } from '../form/value';
import type { By, EventType } from './entries';
import { words, type Failure } from './errors';
import type { Aspect, Part, RunRecord } from './parts';
import type { Row, Rows } from './rows';
import { forTape, rowsChanged, type Announced, type RunResult, type Runs } from './runs';
import type { State } from './state';
import type { TapeWriter } from './tape-writer';
import { ruleOf, type EachRule, type Handler, type Rule } from './ties';
import type { Call, Outcome, Waiting } from './waiting';

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
  extra?: Record<string, unknown>;
  /** Stops what the event announces. */
  stop?: (says: string, part: Part | null) => void;
}

type Item = Event | (() => void);

interface Ties {
  handlers: ReadonlyMap<string, Handler[]>;
  rules: readonly Rule[];
  each: ReadonlyMap<Rows, readonly EachRule[]>;
}

/** Thrown through the settling when a handler or rule exceeds the limit. Never reaches a script. */
class NoRest {
  readonly failure: Failure;
  constructor(failure: Failure) {
    this.failure = failure;
  }
}

export class Settling {
  readonly #state: State;
  readonly #runs: Runs;
  readonly #tape: TapeWriter;
  readonly #waiting: Waiting;
  readonly #limit: number;
  readonly #faces: FacesOf;
  readonly handlers = new Map<string, Handler[]>();
  readonly rules: Rule[] = [];
  #queue: Item[] = [];
  #step = 0;
  /** What the person entered in this step, to be entered again when all else is taken back. */
  #entered: (() => void)[] = [];
  /** Fields as judged at the last rest, for `whenHidden`. */
  readonly #wasOnScreen = new Map<Part, boolean>();
  /** The opening is settling: nothing is cleared, and what came with the record may stay. */
  #opening = false;
  errors: Failure[] = [];
  /** Handlers and rules whose last run failed. */
  readonly failing = new Map<object, Failure>();
  submitWanted = false;

  constructor(
    state: State,
    runs: Runs,
    tape: TapeWriter,
    waiting: Waiting,
    limit: number,
    faces: FacesOf,
  ) {
    this.#state = state;
    this.#runs = runs;
    this.#tape = tape;
    this.#waiting = waiting;
    this.#limit = limit;
    this.#faces = faces;
  }

  listens(type: EventType, part: Part | null): boolean {
    return this.handlers.has(keyOf(type, part));
  }

  tie(handler: Handler): () => void {
    for (const key of handler.keys) {
      const list = [...(this.handlers.get(key) ?? []), handler];
      this.handlers.set(key, list.sort((a, b) => a.order - b.order));
    }
    return () => this.#untie(handler);
  }

  #untie(handler: Handler): void {
    for (const key of handler.keys) {
      const rest = (this.handlers.get(key) ?? []).filter((other) => other !== handler);
      if (rest.length === 0) this.handlers.delete(key);
      else this.handlers.set(key, rest);
    }
  }

  keep(rule: Rule): void {
    this.rules.push(rule);
    this.rules.sort((a, b) => a.order - b.order);
    if (rule.ofRecord) this.#state.stirred.add(rule);
  }

  keepEach(made: EachRule): void {
    const { rows } = made;
    rows.each = [...rows.each, made];
    for (const row of rows.list) {
      const rule = ruleOf(made, row);
      row.rules.push(rule);
      this.#state.stirred.add(rule);
    }
  }

  /** All that is tied now, to be put back when a script's top level fails. */
  ties(): Ties {
    return { handlers: new Map(this.handlers), rules: [...this.rules], each: new Map(this.#rowsFields().map((rows) => [rows, rows.each])) };
  }

  putTies({ handlers, rules, each }: Ties): void {
    this.handlers.clear();
    for (const [key, list] of handlers) this.handlers.set(key, list);
    this.rules.splice(0, Infinity, ...rules);
    for (const [rows, made] of each) rows.each = made;
  }

  #rowsFields(): Rows[] {
    return this.#state.parts.fields.flatMap(({ rows }) => (rows === null ? [] : [rows]));
  }

  /** Another record is opened: what was tied while the former one was loaded ends with it, rules forget what they saw. */
  leaveRecord(): void {
    for (const handler of new Set([...this.handlers.values()].flat())) {
      if (handler.ofRecord) this.#untie(handler);
      handler.rowRuns = null;
    }
    this.rules.splice(0, Infinity, ...this.rules.filter((rule) => !rule.ofRecord));
    for (const rule of this.rules) {
      rule.words = new Map();
      rule.reads = null;
    }
    for (const rows of this.#rowsFields()) rows.each = rows.each.filter((made) => !made.ofRecord);
    this.failing.clear();
    this.#wasOnScreen.clear();
    this.#queue = [];
  }

  push(item: Item): void {
    this.#queue.push(item);
  }

  /** Notes what a person entered in this step: it stays even when scripts come to no rest. */
  entered(again: () => void): void {
    this.#entered.push(again);
  }

  /** Opens a step: counts start anew, and what follows can be undone as one. */
  begin(opening: boolean): void {
    this.#step++;
    this.#opening = opening;
    this.#entered = [];
    this.#state.forget();
    if (opening) for (const rule of this.rules) this.#state.stirred.add(rule);
  }

  /**
   * Settles until events and rules are still. False when they came to no rest: then everything scripts did in this
   * step has been taken back.
   */
  settle(cause: number | null): boolean {
    try {
      for (;;) {
        const item = this.#queue.shift();
        if (item !== undefined) {
          if (typeof item === 'function') item();
          else this.#dispatch(item);
          continue;
        }
        const rule = this.#nextRule();
        if (rule !== null) {
          this.#runRule(rule, cause);
          continue;
        }
        if (!this.#correct(cause)) break;
      }
      this.#rest();
      return true;
    } catch (caught) {
      if (!(caught instanceof NoRest)) throw caught;
      this.#queue = [];
      this.#state.rollBack(0);
      for (const enter of this.#entered) enter();
      this.#state.stirred.clear();
      this.submitWanted = false;
      this.#runs.messages = [];
      this.#runs.toParent = [];
      this.errors.push(caught.failure);
      const error = this.#tape.add(cause, { type: 'error', failure: caught.failure });
      this.#tape.add(error?.n ?? null, { type: 'takenBack', what: 'everything scripts did in this step' });
      this.#rest();
      return false;
    }
  }

  #dispatch(event: Event): void {
    const handlers = this.handlers.get(keyOf(event.type, event.part));
    // Nobody listens, so nothing happens that a tape could tell.
    if (handlers === undefined) return;
    const { part, row, type, from } = event;
    const name = part === null ? null : part.name;
    const entry = !this.#tape.on
      ? null
      : this.#tape.add(event.cause, { type: 'event', event: type, part: name, value: forTape(event.value), previous: forTape(event.previous), by: event.by });
    const cause = entry?.n ?? null;
    for (const handler of handlers) {
      this.#count(handler, row, name, from);
      const earlier = handler.overlap === 'all' ? null : this.#waiting.earlier(handler, part, row);
      if (earlier !== null) this.#runs.supersede(earlier, 'started again', cause);
      const title = name === null ? type : `${type} of ${name}`;
      const result = this.#runs.run(handler, this.#faces.eventFor(event), { title, part, row, before: from, cause });
      this.#after(handler, result);
      if (result.failure !== null) event.stop?.(`${handler.behaviour.title} failed, line ${result.failure.line}.`, null);
    }
  }

  /** Goes on with the run that waited for this call, with what it comes to or with what somebody answers instead. */
  resume(call: Call, cause: number | null, instead: Outcome | null = null): void {
    const { run } = call;
    const came = instead ?? call.outcome();
    this.#waiting.remove(call);
    // Under the step that let time pass, while `call` leads back to what asked for it.
    const entry = this.#tape.add(cause ?? call.entry, {
      type: 'answered', call: call.entry, name: call.name, with: came.ok ? forTape(came.value as Value) : null, fails: came.ok ? null : came.reason, clock: call.due,
    });
    this.#after(run.handler, this.#runs.resume(run, call, came, entry?.n ?? cause));
  }

  #nextRule(): Rule | null {
    const { stirred } = this.#state;
    for (let rule = stirred.first(); rule !== null; rule = stirred.first()) {
      if (this.#concerned(rule)) return rule;
      stirred.delete(rule);
    }
    return null;
  }

  /** Whether a rule has to run: something it read differs by value from what it saw. */
  #concerned(rule: Rule): boolean {
    return rule.reads === null || rule.forced || this.#triggerOf(rule) !== null;
  }

  #runRule(rule: Rule, cause: number | null): void {
    const trigger = this.#triggerOf(rule);
    this.#state.stirred.delete(rule);
    rule.forced = false;
    const because = trigger?.part.name ?? null;
    const before = trigger?.changedBy ?? null;
    this.#count(rule, null, because, before);
    const argument = rule.row === null ? undefined : this.#faces.rowFace(rule.row);
    const result = this.#runs.run(rule, argument, { title: rule.title, part: trigger?.part ?? null, row: rule.row, before, cause });
    this.#state.stirred.delete(rule);
    this.#after(rule, result);
  }

  /** The first of what a rule read that differs now. */
  #triggerOf(rule: Rule): Aspect | null {
    if (rule.reads === null) return null;
    for (const aspect of rule.reads.keys()) {
      const now = aspect.below(rule);
      const seen = rule.reads.get(aspect);
      if (now !== seen && !equal(now, seen)) return aspect;
    }
    return null;
  }

  #after(tie: Handler | Rule, result: RunResult): void {
    if (result.failure === null) this.failing.delete(tie);
    else {
      this.failing.set(tie, result.failure);
      this.errors.push(result.failure);
    }
    if (result.wantsSubmit) this.submitWanted = true;
    for (const announced of result.announced) this.push(eventOf(announced, 'script', result.record));
  }

  #count(tie: Handler | Rule, row: Row | null, because: string | null, before: RunRecord | null): void {
    if (tie.step !== this.#step) {
      [tie.step, tie.runs] = [this.#step, 0];
      if (tie.sort === 'handler') tie.rowRuns = null;
    }
    if (tie.sort === 'handler' && row !== null) {
      tie.rowRuns ??= new Map();
      const runs = (tie.rowRuns.get(row) ?? 0) + 1;
      tie.rowRuns.set(row, runs);
      if (runs <= this.#limit) return;
    } else if (++tie.runs <= this.#limit) return;
    throw new NoRest({
      code: 'cycle',
      says: words.cycle(this.#limit),
      behaviour: tie.behaviour.name,
      line: tie.line,
      cycle: roundOf(tie, because, before),
    });
  }

  /** The form's own corrections once scripts are still; true when there was one, so that settling goes on. */
  #correct(cause: number | null): boolean {
    let corrected = false;
    for (const part of Array.from(this.#state.touched)) {
      if (part.sort !== 'field' || part.row?.removed === true) continue;
      corrected = this.#dropUnoffered(part, cause) || corrected;
      corrected = this.#clearHidden(part, cause) || corrected;
    }
    return corrected;
  }

  #dropUnoffered(part: Part, cause: number | null): boolean {
    const { value } = part;
    const gone = this.#state.notOffered(part, value);
    if (gone.length === 0) {
      if (this.#state.orphans.delete(part)) this.#state.touch(part);
      return false;
    }
    if (this.#state.orphans.has(part)) return false;
    if (this.#opening && equal(value, this.#state.initialOf(part))) {
      this.#state.orphans.add(part);
      return false;
    }
    // Of several keys only the missing ones go.
    this.writeByForm(part, Array.isArray(value) ? (value as string[]).filter((key) => !gone.includes(key)) : null, cause);
    return true;
  }

  #clearHidden(part: Part, cause: number | null): boolean {
    const { field } = part;
    if (field.whenHidden !== 'clear' || this.#opening) return false;
    const on = part.onScreen;
    const was = this.#wasOnScreen.get(part) ?? on;
    if (on === was) return false;
    this.#wasOnScreen.set(part, on);
    this.#state.undoable(() => this.#wasOnScreen.set(part, was));
    const aspect = part.aspect('value');
    if (!on) {
      if (isEmpty(aspect.current)) return false;
      this.writeByForm(part, emptyOf(field), cause);
      return true;
    }
    const fallback = this.#faces.defaultOf(part);
    const wrote = isEmpty(aspect.current) && !isEmpty(fallback);
    if (wrote) this.writeByForm(part, fallback, cause);
    // A rule that says this value says it again.
    for (const word of aspect.ruleWords) {
      word.rule.forced = true;
      this.#state.stirred.add(word.rule);
    }
    return wrote || aspect.ruleWords.length > 0;
  }

  writeByForm(part: Part, value: Value, cause: number | null): void {
    this.write(part, value, 'form', cause);
  }

  /** Writes a value that no script wrote: tapes it and queues its events. */
  write(part: Part, value: Value, by: By, cause: number | null): void {
    const { rows, row } = part;
    if (rows !== null) {
      // Only ever emptied as a whole.
      this.arrange(rows.field, [], rows.list, 'removed', by, cause);
      return;
    }
    const aspect = part.aspect('value');
    const previous = aspect.base;
    const rowsBefore = this.#before(row?.rows.field ?? null);
    this.#state.setValue(aspect, value, null);
    const effect = this.#tape.add(cause, {
      type: 'effect', part: part.name, sort: part.sort, aspect: 'value', from: forTape(previous), to: forTape(value), by, line: null,
    });
    const why = effect?.n ?? cause;
    this.#announce([{ type: 'change', part, value, previous, cause: why }, ...this.#rowsChange(row?.rows.field ?? null, rowsBefore, why)], by);
  }

  /** Puts the rows of a field in another order, with those named new, gone or moved, and queues its events. */
  arrange(field: Part, list: readonly Row[], touched: readonly Row[], did: 'added' | 'removed' | 'moved', by: By, cause: number | null): void {
    const rows = field.rows!;
    const before = this.#before(field);
    const places = did === 'removed' ? rows.list : list;
    const taped = touched.map((row) => ({ row, place: this.#tape.on ? places.indexOf(row) : -1 }));
    this.#state.setRows(rows, list);
    let why = cause;
    for (const { row: one, place } of taped) {
      why = this.#tape.add(cause, { type: 'rows', part: field.name, did, row: one.id, place, by, line: null })?.n ?? cause;
    }
    const events: Announced[] = did === 'moved' ? [] : taped.map(({ row: one }) => ({ type: did === 'added' ? 'rowAdded' : 'rowRemoved', part: field, row: one, cause: why }));
    this.#announce([...events, ...this.#rowsChange(field, before, why)], by);
  }

  #before(field: Part | null): Value {
    return field !== null && this.listens('change', field) ? field.rows!.value : null;
  }

  #rowsChange(field: Part | null, previous: Value, cause: number | null): Announced[] {
    return field === null || !this.listens('change', field) ? [] : rowsChanged(field.rows!, previous, cause);
  }

  /** A person's events belong to the item being taken, so they go before all that wait; the form's come after. */
  #announce(announced: readonly Announced[], by: By): void {
    const events = announced.map((one) => eventOf(one, by, null));
    if (by === 'person') this.#queue.unshift(...events);
    else this.#queue.push(...events);
  }

  #rest(): void {
    if (this.#opening) {
      for (const part of this.#state.parts.fields) this.#noteOnScreen(part);
    } else for (const part of this.#state.touched) this.#noteOnScreen(part);
    this.#opening = false;
  }

  #noteOnScreen(part: Part): void {
    if (part.sort !== 'field') return;
    if (part.field.whenHidden === 'clear') this.#wasOnScreen.set(part, part.onScreen);
    const { rows } = part;
    if (rows === null || !this.#opening) return;
    for (const [name, { field }] of rows.columns) {
      if (field.whenHidden === 'clear') for (const row of rows.list) this.#noteOnScreen(rows.cell(row, name));
    }
  }
}

/** What settling needs of the faces: how scripts see an event and a row, and what a field begins with. */
export interface FacesOf {
  eventFor(event: Event): unknown;
  rowFace(row: Row): object;
  defaultOf(part: Part): Value;
}

/** What an event is tied by: its type and the part, for cells the column. */
export function keyOf(type: EventType, part: Part | null): string {
  if (part === null) return type;
  return part.row === null || part.sort === 'row' ? `${type}:${part.name}` : columnKey(type, part.row.rows.field.name, part.field.name);
}

export function columnKey(type: EventType, rows: string, column: string): string {
  return `${type}:${rows}.${column}`;
}

export function eventOf(announced: Announced, by: By, from: RunRecord | null): Event {
  const { type, part, cause } = announced;
  if (announced.type === 'change') return { type, part, row: part.row, value: announced.value, previous: announced.previous, by, from, cause };
  return { type, part, row: announced.row, value: announced.row.values, previous: null, by, from, cause };
}

/** The round that a run went, as sentences: which behaviour set which part, back to the same run. */
function roundOf(tie: object, because: string | null, before: RunRecord | null): string[] {
  const round: string[] = [];
  let part = because;
  for (let run = before; run !== null && round.length < 20; run = run.before) {
    round.unshift(`${run.behaviour} (line ${run.line}) set ${part ?? 'something'}`);
    if (run.tie === tie) break;
    part = run.because;
  }
  return round;
}
