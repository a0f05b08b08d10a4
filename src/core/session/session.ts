/**
 * A form in use, from opening to closing: takes steps, settles, answers. One session opens once; a host that wants
 * another opening makes a new session or puts its machine back to the moment before (see `sandbox/`).
 *
 * The stations of a step are accept (`#accept…`: may a person do this), write, settle (`settling.ts`) and answer.
 */
import type { Form } from '../form/definition';
import { accept, faultOf } from '../form/kinds';
import type { Table } from '../form/table';
import { deepFreeze, equal, type Value, type Values } from '../form/value';
import { Clock, dateOn, mathOn, temporalOn } from './clock';
import { readFailure, type Failure } from './errors';
import { makeFaces, type Globals, type Stage } from './faces';
import { FORM, type Part } from './parts';
import { Probe } from './probe';
import { forTape, Runs } from './runs';
import { changeEvent, Settling } from './settling';
import { State } from './state';
import type { Answer, Opening, PartState, Step, SubmitOutcome, TimedStep } from './step';
import { TapeWriter } from './tape-writer';
import type { Behaviour, CompiledScript } from './ties';

/** What the machine around a session lends it. */
export interface Machine {
  /** Makes a function of these parameters from compiled source. Throws what the engine throws when it cannot. */
  makeFunction(parameters: readonly string[], body: string): (...args: unknown[]) => unknown;
  temporal: object | null;
  /** Told before each run and, in a traced session, each line, when somebody looks for the script that got stuck. */
  tell: ((behaviour: string, line: number) => void) | null;
}

export interface Material {
  form: Form;
  tables: readonly Table[];
  scripts: readonly CompiledScript[];
  traced: boolean;
}

/** Names that scripts do not get, though the machine has them. */
const WITHHELD = ['globalThis', 'Function', 'Reflect', 'Intl', 'console', 'setTimeout', 'setInterval', 'queueMicrotask', 'process', 'window', 'self', 'document', 'fetch'];

export class Session {
  readonly #state: State;
  readonly #tape: TapeWriter;
  readonly #runs: Runs;
  readonly #settling: Settling;
  readonly #clock = new Clock();
  readonly #globals: Globals;
  readonly #checkPages: boolean;
  /** Failures of scripts' top levels: those behaviours are out for good. */
  readonly #out: Failure[] = [];
  #orders = 0;
  #opening: Opening | null = null;
  #isNew = true;
  #recordId: string | null = null;
  #page: Part | null = null;
  #focused: Part | null = null;
  /** What is typed and not yet committed. */
  #typing: { part: Part; value: Value } | null = null;
  #submitting = false;
  /** What the last check found. */
  #found: { part: string; says: string }[] = [];
  #outcome: SubmitOutcome | null = null;
  /** Values before the last committed change of each field. */
  readonly #previous = new Map<Part, Value>();

  constructor(material: Material, machine: Machine) {
    const { form } = material;
    this.#state = new State(form, material.tables);
    this.#tape = new TapeWriter(material.traced);
    this.#runs = new Runs(this.#state, this.#tape);
    this.#settling = new Settling(this.#state, this.#runs, this.#tape, form.settings?.runLimit ?? 100, (event) => {
      if (event.type === 'change') this.#previous.set(event.part!, event.previous);
      return this.#globals.eventFor(event);
    });
    this.#checkPages = form.settings?.checkPages ?? true;
    const stage: Stage = {
      opening: () => this.#opening!,
      isNew: () => this.#isNew,
      recordId: () => this.#recordId,
      previousOf: (part) => this.#previous.get(part) ?? null,
      submitting: () => this.#submitting,
      openPage: (page, cause, line) => this.#turnTo(page, cause, line),
      nextOrder: (behaviour) => behaviour.index * 100_000 + this.#orders++,
    };
    this.#globals = makeFaces(this.#state, this.#runs, this.#settling, stage);
    material.scripts.forEach((script, index) => this.#loadScript(script, index, machine));
  }

  /** Which events anybody listens to, so that a live form sends no steps in vain. */
  listensTo(): { input: string[]; focus: string[]; blur: string[] } {
    const of = (type: 'input' | 'focus' | 'blur') =>
      this.#state.parts.fields.filter((part) => this.#settling.listens(type, part)).map((part) => part.name);
    return { input: of('input'), focus: of('focus'), blur: of('blur') };
  }

  #loadScript(script: CompiledScript, index: number, machine: Machine): void {
    const { tell } = machine;
    const probe = new Probe(tell === null ? null : (line) => tell(script.name, line));
    const behaviour: Behaviour = { name: script.name, title: script.title, index, probe };
    if (script.code === null) {
      this.#out.push({ ...script.failure!, behaviour: script.name });
      return;
    }
    const { fields, sections, pages, buttons, tables, form, round } = this.#globals;
    const temporal = machine.temporal === null ? undefined : temporalOn(this.#clock, machine.temporal as never);
    const scope: Record<string, unknown> = {
      __probe: probe,
      ...this.#globals.of(behaviour),
      fields, sections, pages, buttons, tables, form, round,
      Date: dateOn(this.#clock),
      Math: mathOn(this.#clock),
      Temporal: temporal,
    };
    for (const name of WITHHELD) scope[name] = undefined;
    const handlers = new Map(this.#settling.handlers);
    const rules = [...this.#settling.rules];
    probe.begin(1, false);
    this.#runs.topLevel = true;
    try {
      machine.makeFunction(Object.keys(scope), `"use strict";${script.code}`)(...Object.values(scope));
    } catch (caught) {
      const { thrownByScript } = probe;
      const failure = readFailure(caught, thrownByScript !== null && thrownByScript.value === caught, probe.deepest);
      this.#out.push({ ...failure, behaviour: script.name, line: probe.l });
      // None of its ties stay.
      this.#settling.handlers.clear();
      for (const [key, list] of handlers) this.#settling.handlers.set(key, list);
      this.#settling.rules.splice(0, Infinity, ...rules);
    } finally {
      this.#runs.topLevel = false;
    }
  }

  /** Opens the form: base and record, `load` handlers, rules. To be called once. */
  open(opening: Opening): Answer {
    if (this.#opening !== null) throw new Error('a session opens once');
    this.#opening = deepFreeze(opening);
    this.#clock.now = opening.clock;
    this.#clock.seed(opening.seed);
    this.#isNew = opening.record === null;
    this.#recordId = opening.record?.id ?? null;
    for (const part of this.#state.parts.fields) {
      part.aspects.value!.base = this.#firstValue(part, opening.record?.values ?? null);
    }
    this.#state.rebase();
    for (const part of this.#state.parts.byName.values()) this.#state.touch(part);
    const entry = this.#tape.add(null, {
      type: 'opened',
      record: this.#recordId,
      person: opening.person.key,
      clock: opening.clock,
      values: this.#values(),
    });
    for (const failure of this.#out) this.#tape.add(entry?.n ?? null, { type: 'error', failure });
    this.#settling.errors.push(...this.#out);
    this.#settling.begin(true);
    this.#settling.push({ type: 'load', part: null, value: null, previous: null, by: 'form', from: null, cause: entry?.n ?? null });
    this.#settling.settle(entry?.n ?? null);
    this.#page = this.#state.parts.pages.find((page) => page.onScreen) ?? null;
    this.#afterSteps();
    return this.#answer(null);
  }

  #firstValue(part: Part, record: Values | null): Value {
    const offered = record === null ? (part.field.default ?? null) : (record[part.name] ?? null);
    const { field } = part;
    // A key that is no longer known is kept, marked and shown; see semantics 6.
    if ((field.kind === 'choice' || field.kind === 'reference') && typeof offered === 'string') return offered;
    const accepted = accept(offered, field, this.#state.surroundings(part));
    if (!accepted.ok) this.#state.strays.set(part, offered);
    return accepted.ok ? accepted.value : null;
  }

  /** Does one step of a person's, settles, and says what came of it. */
  do(step: TimedStep): Answer {
    if (this.#opening === null) throw new Error('the form is not open');
    const { at, ...bare } = step;
    if (at !== undefined) this.#clock.now = Math.max(this.#clock.now!, this.#opening.clock + at);
    this.#outcome = null;
    const refused = this.#step(bare as Step, 'person');
    this.#afterSteps();
    return this.#answer(refused);
  }

  /** What scripts asked to follow as steps of their own. */
  #afterSteps(): void {
    for (let i = 0; this.#settling.submitWanted && i < 10; i++) {
      this.#settling.submitWanted = false;
      this.#step({ submit: true }, 'script');
    }
  }

  #step(step: Step, by: 'person' | 'script'): string | null {
    this.#settling.begin(false);
    const entry = this.#tape.add(null, { type: 'step', step, clock: this.#clock.now!, by });
    const cause = entry?.n ?? null;
    const why = this.#begin(step, cause);
    if (why !== null) {
      this.#tape.add(cause, { type: 'refused', why });
      // What was typed before is committed all the same.
      this.#settling.settle(cause);
      return why;
    }
    this.#settling.settle(cause);
    this.#keepPage(cause);
    return null;
  }

  /** Accepts a step and sets off what it does; or says why a person cannot do it. */
  #begin(step: Step, cause: number | null): string | null {
    if ('set' in step) return this.#acceptSet(step.set, step.to, cause);
    if ('input' in step) return this.#acceptInput(step.input, step.to, cause);
    if ('focus' in step) return this.#acceptFocus(step.focus, cause);
    if ('blur' in step) return this.#acceptBlur(step.blur, cause);
    this.#commitTyping(cause);
    if ('click' in step) return this.#acceptClick(step.click, cause);
    if ('wait' in step) {
      this.#clock.now! += Math.max(0, step.wait);
      return null;
    }
    if ('turnTo' in step) return this.#acceptTurn(step.turnTo, cause);
    this.#submit(cause);
    return null;
  }

  #reachable(name: string, sort: 'field' | 'button'): Part | string {
    const part = this.#state.parts.byName.get(name);
    if (part === undefined || part.sort !== sort) return `there is no ${sort} "${name}"`;
    if (!part.onScreen) return `${part.label} is hidden`;
    if (!part.editable) return `${part.label} is locked`;
    return part;
  }

  #offer(part: Part, offered: Value): { value: Value } | string {
    const accepted = accept(offered, part.field, this.#state.surroundings(part));
    const current = part.aspects.value!.base;
    if (!accepted.ok) return equal(offered, current) ? { value: current } : `${part.label} takes ${accepted.takes}`;
    if (!this.#state.isOffered(part, accepted.value) && !equal(accepted.value, current)) {
      return `${JSON.stringify(accepted.value)} is not among the options of ${part.label}`;
    }
    return { value: accepted.value };
  }

  #acceptSet(name: string, offered: Value, cause: number | null): string | null {
    if (this.#typing !== null && this.#typing.part.name !== name) this.#commitTyping(cause);
    const part = this.#reachable(name, 'field');
    if (typeof part === 'string') return part;
    const offer = this.#offer(part, offered);
    if (typeof offer === 'string') return offer;
    this.#typing = null;
    this.#moveFocus(part, cause);
    this.#fire('input', part, offer.value, cause);
    this.#commit(part, offer.value, cause);
    this.#fire('blur', part, offer.value, cause);
    this.#focused = null;
    return null;
  }

  #acceptInput(name: string, offered: Value, cause: number | null): string | null {
    if (this.#typing !== null && this.#typing.part.name !== name) this.#commitTyping(cause);
    const part = this.#reachable(name, 'field');
    if (typeof part === 'string') return part;
    const offer = this.#offer(part, offered);
    if (typeof offer === 'string') return offer;
    this.#moveFocus(part, cause);
    this.#typing = { part, value: offer.value };
    this.#fire('input', part, offer.value, cause);
    return null;
  }

  #acceptFocus(name: string, cause: number | null): string | null {
    if (this.#typing !== null && this.#typing.part.name !== name) this.#commitTyping(cause);
    const part = this.#reachable(name, 'field');
    // A locked field can be visited, if not changed.
    if (typeof part === 'string' && !part.endsWith('is locked')) return part;
    this.#moveFocus(this.#state.parts.byName.get(name)!, cause);
    return null;
  }

  #acceptBlur(name: string, cause: number | null): string | null {
    const part = this.#state.parts.byName.get(name);
    if (part === undefined || part.sort !== 'field') return `there is no field "${name}"`;
    this.#commitTyping(cause);
    if (this.#focused === part) {
      this.#fire('blur', part, part.aspects.value!.base, cause);
      this.#focused = null;
    }
    return null;
  }

  #acceptClick(name: string, cause: number | null): string | null {
    const part = this.#reachable(name, 'button');
    if (typeof part === 'string') return part;
    this.#fire('click', part, null, cause);
    return null;
  }

  #moveFocus(part: Part, cause: number | null): void {
    const before = this.#focused;
    if (before === part) return;
    if (before !== null) this.#fire('blur', before, before.aspects.value!.base, cause);
    this.#focused = part;
    this.#fire('focus', part, part.aspects.value!.base, cause);
  }

  #fire(type: 'input' | 'focus' | 'blur' | 'click', part: Part, value: Value, cause: number | null): void {
    // Most fields have nobody listening for these.
    if (!this.#settling.listens(type, part)) return;
    const previous = type === 'click' ? null : type === 'blur' ? value : part.aspects.value!.base;
    this.#settling.push({ type, part, value, previous, by: 'person', from: null, cause });
  }

  /** Writes what a person entered when its turn in the queue comes. */
  #commit(part: Part, value: Value, cause: number | null): void {
    this.#settling.push(() => {
      const aspect = part.aspects.value!;
      const previous = aspect.base;
      if (equal(previous, value)) return;
      this.#state.setValue(aspect, value, null);
      this.#settling.entered(aspect, value);
      const effect = !this.#tape.on
        ? null
        : this.#tape.add(cause, {
            type: 'effect', part: part.name, sort: 'field', aspect: 'value',
            from: forTape(previous), to: forTape(value), by: 'person', line: null,
          });
      this.#settling.unshift(changeEvent({ part, value, previous, cause: effect?.n ?? cause }, 'person', null));
    });
  }

  #commitTyping(cause: number | null): void {
    const typing = this.#typing;
    if (typing === null) return;
    this.#typing = null;
    this.#commit(typing.part, typing.value, cause);
    if (this.#focused === typing.part) {
      this.#fire('blur', typing.part, typing.value, cause);
      this.#focused = null;
    }
  }

  #acceptTurn(name: string, cause: number | null): string | null {
    const { pages } = this.#state.parts;
    const to = this.#state.parts.byName.get(name);
    if (to === undefined || to.sort !== 'page') return `there is no page "${name}"`;
    if (!to.onScreen) return `${to.label} is hidden`;
    const from = this.#page;
    if (from === to || from === null) return null;
    const forward = pages.indexOf(to) > pages.indexOf(from);
    if (!this.#settling.settle(cause)) return null;
    if (forward && this.#checkPages && !this.#check(cause, from)) return null;
    let stopped = false;
    const stop = (says: string, part: Part | null) => {
      stopped = true;
      if (part?.sort === 'field') this.#setFault(part, says, true);
      else this.#runs.messages.push({ text: says, tone: 'error', behaviour: '' });
    };
    this.#settling.push({
      type: 'pageChange', part: null, value: null, previous: null, by: 'person', from: null, cause,
      extra: { from: from.name, to: to.name, stop },
    });
    if (this.#settling.settle(cause) && !stopped) this.#turnTo(to, cause, null);
    return null;
  }

  #turnTo(page: Part, cause: number | null, line: number | null): void {
    const from = this.#page;
    if (from === page) return;
    this.#state.undoable(() => (this.#page = from));
    this.#page = page;
    this.#tape.add(cause, { type: 'page', from: from?.name ?? null, to: page.name, line });
  }

  /** The page one is on has been hidden: the form turns to the nearest shown one (edges 8). */
  #keepPage(cause: number | null): void {
    if (this.#page?.onScreen) return;
    const { pages } = this.#state.parts;
    const at = this.#page === null ? 0 : pages.indexOf(this.#page);
    const shown = pages.filter((page) => page.onScreen);
    const distance = (page: Part) => Math.abs(pages.indexOf(page) - at);
    const nearest = shown.sort((a, b) => distance(a) - distance(b))[0] ?? null;
    if (nearest === this.#page) return;
    this.#tape.add(cause, { type: 'page', from: this.#page?.name ?? null, to: nearest?.name ?? null, line: null });
    this.#page = nearest;
  }

  /** Checks the fields on screen, of one page or of all; true when none has a fault or a problem (semantics 25). */
  #check(cause: number | null, page: Part | null): boolean {
    const found: { part: string; says: string }[] = [];
    for (const part of this.#state.parts.fields) {
      if (page !== null && part.parent!.parent !== page) continue;
      const says = this.#faultOf(part);
      if (says !== null && part.aspects.problem!.current === null) this.#setFault(part, says, false);
      if (says !== null) found.push({ part: part.name, says });
    }
    this.#tape.add(cause, { type: 'checked', faults: found });
    this.#found = found;
    return found.length === 0;
  }
  /** What is wrong with a field as it stands: a broken constraint, else a problem a script set. */
  #faultOf(part: Part): string | null {
    if (!part.onScreen) return null;
    const value = part.aspects.value!.base;
    const kept = this.#state.orphans.has(part) || this.#state.strays.has(part) ? null : faultOf(value, part.field, part.aspects.required!.current === true);
    return kept?.says ?? (part.aspects.problem!.current as string | null);
  }

  #setFault(part: Part, says: string, byScript: boolean): void {
    this.#state.faults.set(part, { says, byScript });
    this.#state.touch(part);
  }

  #submit(cause: number | null): void {
    const stops: SubmitOutcome['stops'] = [];
    const values = () => this.#outgoing();
    const finish = (saved: boolean) => {
      this.#outcome = { saved, stoppedBy: stops[0]?.part ?? null, stops, id: saved ? this.#recordId : null, ...values() };
      this.#tape.add(cause, { type: 'outcome', ...this.#outcome });
    };
    if (!this.#settling.settle(cause)) {
      stops.push({ part: null, says: 'The behaviours of this form came to no rest.' });
      return finish(false);
    }
    this.#state.faults.clear();
    for (const part of this.#state.parts.fields) this.#state.touch(part);
    if (!this.#check(cause, null)) {
      stops.push(...this.#found);
      return finish(false);
    }
    this.#submitting = true;
    const before = this.#values();
    const stop = (says: string, part: Part | null) => {
      stops.push({ part: part?.name ?? null, says });
      if (part?.sort === 'field') this.#setFault(part, says, true);
    };
    this.#settling.push({
      type: 'submit', part: null, value: null, previous: null, by: 'person', from: null, cause, extra: { stop },
    });
    if (!this.#settling.settle(cause)) stops.push({ part: null, says: 'The behaviours of this form came to no rest.' });
    this.#submitting = false;
    if (stops.length > 0) return finish(false);
    if (!equal(before, this.#values()) && !this.#check(cause, null)) {
      stops.push(...this.#found);
      return finish(false);
    }
    this.#recordId ??= this.#opening!.newId;
    finish(true);
    this.#state.rebase();
    this.#settling.push({
      type: 'saved', part: null, value: null, previous: null, by: 'form', from: null, cause, extra: { id: this.#recordId },
    });
    this.#settling.settle(cause);
    this.#isNew = false;
  }

  #values(): Values {
    return Object.fromEntries(this.#state.parts.fields.map((part) => [part.name, part.aspects.value!.base]));
  }

  /** What is saved: every field, with null where an off-screen field omits its value (semantics 11). */
  #outgoing(): { values: Values; without: string[] } {
    const values: Values = {};
    const without: string[] = [];
    for (const part of this.#state.parts.fields) {
      const omitted = part.field.whenHidden === 'omit' && !part.onScreen;
      if (omitted) without.push(part.name);
      values[part.name] = omitted ? null : (this.#state.strays.get(part) ?? part.aspects.value!.base);
    }
    return { values, without };
  }

  #answer(refused: string | null): Answer {
    const changes: Answer['changes'] = {};
    // The field that was mended loses its fault; others keep theirs until the next check.
    for (const [part, fault] of this.#state.faults) {
      if (!fault.byScript && this.#outcome === null && this.#state.touched.has(part) && this.#faultOf(part) === null) this.#state.faults.delete(part);
    }
    for (const part of this.#state.touched) {
      if (part.name === FORM) continue;
      const difference = this.#difference(part);
      if (difference !== null) changes[part.name] = difference;
    }
    this.#state.touched.clear();
    const answer: Answer = {
      refused,
      changes,
      page: this.#page?.name ?? null,
      replaced: this.#state.parts.form.aspects.replaced!.current as string | null,
      notice: this.#state.parts.form.aspects.message!.current as Answer['notice'],
      messages: this.#runs.messages,
      log: this.#runs.logs,
      errors: this.#settling.errors,
      failing: [...this.#out, ...this.#settling.failing.values()],
      submit: this.#outcome,
      changed: this.#state.changed,
      tape: this.#tape.take(),
    };
    this.#runs.messages = [];
    this.#runs.logs = [];
    this.#settling.errors = [];
    return answer;
  }

  /** The aspects of a part that differ from what was told, which are told by this; null when none does. */
  #difference(part: Part): Partial<PartState> | null {
    const { aspects, sort } = part;
    const told = part.told as Record<string, unknown>;
    let difference: Record<string, unknown> | null = null;
    const tell = (name: string, now: unknown) => {
      if (told[name] === now) return;
      // Options are the only aspect that is not a plain value; lists that read the same are the same.
      if (typeof now === 'object' && now !== null && equal(now, told[name])) return;
      told[name] = now;
      (difference ??= {})[name] = now;
    };
    if (told.sort === undefined) tell('sort', sort);
    const { onScreen } = part;
    tell('shown', aspects.shown!.current);
    tell('onScreen', onScreen);
    tell('locked', aspects.locked!.current);
    tell('editable', part.editable);
    if (sort === 'button') tell('label', aspects.label!.current);
    if (sort !== 'field') return difference;
    tell('value', aspects.value!.base);
    tell('required', aspects.required!.current);
    tell('options', aspects.options!.current);
    tell('hint', aspects.hint!.current);
    tell('problem', onScreen ? aspects.problem!.current : null);
    tell('fault', onScreen ? (this.#state.faults.get(part)?.says ?? null) : null);
    tell('orphan', this.#state.orphans.has(part));
    tell('stray', this.#state.strays.get(part) ?? null);
    return difference;
  }
}
