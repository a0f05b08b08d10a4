/**
 * From a step to rest (semantics 15, 17): events first in first out, each with its handlers; when none is left, rules
 * that read something that differs, in order; when those are still, the form's own corrections (semantics 6, 11).
 */
import { equal, type Value } from '../form/value';
import type { By, EventType } from './entries';
import { words, type Failure } from './errors';
import type { Aspect, Part, RunRecord } from './parts';
import { forTape, type RunResult, type Runs, type ValueChange } from './runs';
import type { State } from './state';
import type { TapeWriter } from './tape-writer';
import type { Handler, Rule } from './ties';

export interface Event {
  type: EventType;
  part: Part | null;
  value: Value;
  previous: Value;
  by: By;
  /** The run that made it happen; null for persons and the form. */
  from: RunRecord | null;
  cause: number | null;
  /** What handlers get besides, such as `stop`. */
  extra?: Record<string, unknown>;
}

type Item = Event | (() => void);

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
  readonly #limit: number;
  /** How handlers are called with an event; the faces know. */
  readonly #eventFor: (event: Event) => unknown;
  readonly handlers = new Map<string, Handler[]>();
  readonly rules: Rule[] = [];
  #queue: Item[] = [];
  #step = 0;
  #entered: { aspect: Aspect; value: Value }[] = [];
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
    limit: number,
    eventFor: (event: Event) => unknown,
  ) {
    this.#state = state;
    this.#runs = runs;
    this.#tape = tape;
    this.#limit = limit;
    this.#eventFor = eventFor;
  }

  listens(type: EventType, part: Part | null): boolean {
    return this.handlers.has(keyOf(type, part));
  }

  tie(handler: Handler): () => void {
    const keys = handler.parts.length === 0 ? [keyOf(handler.event, null)] : handler.parts.map((part) => keyOf(handler.event, part));
    for (const key of keys) {
      const list = [...(this.handlers.get(key) ?? []), handler];
      this.handlers.set(key, list.sort((a, b) => a.order - b.order));
    }
    return () => {
      for (const key of keys) {
        const rest = (this.handlers.get(key) ?? []).filter((other) => other !== handler);
        if (rest.length === 0) this.handlers.delete(key);
        else this.handlers.set(key, rest);
      }
    };
  }

  keep(rule: Rule): void {
    this.rules.push(rule);
    this.rules.sort((a, b) => a.order - b.order);
  }

  push(item: Item): void {
    this.#queue.push(item);
  }

  /** Puts an event before all that wait, since it belongs to the item being taken. */
  unshift(item: Item): void {
    this.#queue.unshift(item);
  }

  /** Notes what a person entered in this step: it stays even when scripts come to no rest. */
  entered(aspect: Aspect, value: Value): void {
    this.#entered.push({ aspect, value });
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
      for (const { aspect, value } of this.#entered) this.#state.setValue(aspect, value, null);
      this.#state.stirred.clear();
      this.submitWanted = false;
      this.#runs.messages = [];
      this.errors.push(caught.failure);
      const error = this.#tape.add(cause, { type: 'error', failure: caught.failure });
      this.#tape.add(error?.n ?? null, { type: 'takenBack', what: 'everything scripts did in this step' });
      this.#rest();
      return false;
    }
  }

  #dispatch(event: Event): void {
    const handlers = this.handlers.get(keyOf(event.type, event.part));
    const quiet = event.type === 'focus' || event.type === 'blur' || event.type === 'input';
    if (handlers === undefined && (quiet || !this.#tape.on)) return;
    const { part, type } = event;
    const name = part === null ? null : part.name;
    const entry = !this.#tape.on
      ? null
      : this.#tape.add(event.cause, { type: 'event', event: type, part: name, value: event.value, previous: event.previous, by: event.by });
    for (const handler of handlers ?? []) {
      this.#count(handler, name, event.from);
      const title = name === null ? type : `${type} of ${name}`;
      const result = this.#runs.run(handler, this.#eventFor(event), title, name, event.from, entry?.n ?? null);
      this.#after(handler, result);
      if (result.failure !== null && (event.type === 'submit' || event.type === 'pageChange')) {
        (event.extra as { stop?: (says: string, part: Part | null) => void }).stop?.(`${handler.behaviour.title} failed, line ${result.failure.line}.`, null);
      }
    }
  }

  #nextRule(): Rule | null {
    const { stirred } = this.#state;
    if (stirred.size === 0) return null;
    let next: Rule | null = null;
    for (const rule of stirred) {
      if (!this.#concerned(rule)) stirred.delete(rule);
      else if (next === null || rule.order < next.order) next = rule;
    }
    return next;
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
    this.#count(rule, because, before);
    const result = this.#runs.run(rule, null, rule.title, because, before, cause);
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
    for (const change of result.changes) this.push(changeEvent(change, 'script', result.record));
  }

  #count(tie: Handler | Rule, because: string | null, before: RunRecord | null): void {
    if (tie.step !== this.#step) [tie.step, tie.runs] = [this.#step, 0];
    if (++tie.runs <= this.#limit) return;
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
      if (part.sort !== 'field') continue;
      corrected = this.#dropUnoffered(part, cause) || corrected;
      corrected = this.#clearHidden(part, cause) || corrected;
    }
    return corrected;
  }

  #dropUnoffered(part: Part, cause: number | null): boolean {
    const { field } = part;
    if (field.kind !== 'choice' && field.kind !== 'reference') return false;
    const value = part.aspects.value!.base;
    if (this.#state.isOffered(part, value)) {
      if (this.#state.orphans.delete(part)) this.#state.touch(part);
      return false;
    }
    if (this.#state.orphans.has(part)) return false;
    if (this.#opening && equal(value, this.#state.initial.get(part) ?? null)) {
      this.#state.orphans.add(part);
      return false;
    }
    this.writeByForm(part, null, cause);
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
    const aspect = part.aspects.value!;
    if (!on) {
      if (aspect.base === null) return false;
      this.writeByForm(part, null, cause);
      return true;
    }
    const fallback = field.default ?? null;
    const wrote = aspect.base === null && fallback !== null;
    if (wrote) this.writeByForm(part, fallback, cause);
    // A rule that says this value says it again.
    for (const word of aspect.ruleWords) {
      word.rule.forced = true;
      this.#state.stirred.add(word.rule);
    }
    return wrote || aspect.ruleWords.length > 0;
  }

  writeByForm(part: Part, value: Value, cause: number | null): void {
    const aspect = part.aspects.value!;
    const previous = aspect.base;
    this.#state.setValue(aspect, value, null);
    const effect = this.#tape.add(cause, {
      type: 'effect',
      part: part.name,
      sort: part.sort,
      aspect: 'value',
      from: forTape(previous),
      to: forTape(value),
      by: 'form',
      line: null,
    });
    this.push(changeEvent({ part, value, previous, cause: effect?.n ?? cause }, 'form', null));
  }

  #rest(): void {
    for (const part of this.#opening ? this.#state.parts.fields : this.#state.touched) {
      if (part.sort === 'field' && part.field.whenHidden === 'clear') this.#wasOnScreen.set(part, part.onScreen);
    }
    this.#opening = false;
  }
}

function keyOf(type: EventType, part: Part | null): string {
  return part === null ? type : `${type}:${part.name}`;
}

export function changeEvent(change: ValueChange, by: By, from: RunRecord | null): Event {
  return { type: 'change', part: change.part, value: change.value, previous: change.previous, by, from, cause: change.cause };
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
