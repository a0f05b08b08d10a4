/**
 * A form in use, from opening to closing: takes steps, settles, answers. It stands outside the machine that its scripts
 * run in and asks it to run them (`scripts.ts`); what they read, say and ask comes back through the `desk.ts`. One
 * session opens once; another opening is another session.
 *
 * The stations of a step are accept (may a person do this? `entering.ts` and its like), write (`writing.ts`), settle
 * (`settling.ts`) and answer (`telling.ts`). Time passes only in `time.ts`.
 */
import { RUNS_PER_STEP, SUBMISSIONS_PER_STEP } from '../limits';
import type { Field, Form } from '../form/definition';
import { accept } from '../form/kinds';
import type { Service } from '../form/service';
import type { Table } from '../form/table';
import { deepFreeze, equal, type Value } from '../form/value';
import type { Failure } from '../wire/failures';
import { dropMended } from './checking';
import { Clock } from './clock';
import { Corrections } from './corrections';
import { defaultOf } from './defaults';
import { Desk } from './desk';
import { Entering } from './entering';
import { lookAt, type Look } from './looking';
import type { Observer } from './observer';
import { Opened } from './opened';
import { PageSteps } from './page-steps';
import { Pages } from './pages';
import type { Part } from './parts';
import { Progress } from './progress';
import { Records } from './records';
import { RowSteps } from './row-steps';
import { RuleClaims } from './rule-claims';
import { Running } from './running';
import type { Scripts } from './scripts';
import { Services } from './services';
import { Settling } from './settling';
import { Situation } from './situation';
import { State } from './state';
import {
  kindOfStep,
  type Answer,
  type Opening,
  type Step,
  type StepKind,
  type Steps,
  type TimedStep,
} from './step';
import { Stopping } from './stopping';
import { Submitting } from './submitting';
import { TapeWriter } from './tape-writer';
import { tell } from './telling';
import { Ties } from './ties';
import type { CompiledScript, Tied } from './tie';
import { Time } from './time';
import { partAt } from './tree';
import { Waiting } from './waiting';
import { Writing } from './writing';

export interface Material {
  form: Form;
  tables: readonly Table[];
  services: readonly Service[];
  /** The compiled scripts of services, named `service.function`. */
  answering: readonly CompiledScript[];
  scripts: readonly CompiledScript[];
  /** The shared modules that scripts import from; each stands behind those that it imports itself. */
  modules: readonly CompiledScript[];
  traced: boolean;
  /** The mutant that is switched on while the scripts are loaded, from 1 (`script/mutants.ts`). */
  mutant?: number | undefined;
}

/** What the scripts' top levels came to: the beginning of every session with them. */
export interface Loaded {
  tied: readonly Tied[];
  /** Behaviours that failed there are out for good. */
  failures: readonly Failure[];
}

type Doing = { [K in StepKind]: (step: Steps[K], cause: number | null) => string | null };

export class Session {
  readonly #opening: Opening;
  readonly #state: State;
  readonly #progress: Progress;
  readonly #tape: TapeWriter;
  readonly #waiting: Waiting;
  readonly #settling: Settling;
  readonly #clock: Clock;
  readonly #situation: Situation;
  readonly #entering: Entering;
  readonly #time: Time;
  readonly #pages: Pages;
  readonly #records: Records;
  readonly #writing: Writing;
  readonly #out: readonly Failure[];
  readonly #doing: Doing;

  readonly #desk: Desk;

  constructor(
    material: Material,
    loaded: Loaded,
    scripts: Scripts,
    opening: Opening,
    observer: Observer | null = null,
  ) {
    const { form } = material;
    // Scripts get these as they are.
    deepFreeze([opening.person, opening.launch]);
    const situation = new Situation(opening);
    const clock = new Clock(opening.clock, opening.zone ?? 'UTC', opening.seed);
    const progress = new Progress();
    const state = new State(form, material.tables, progress.journal, (pattern, text) =>
      scripts.fits(pattern, text),
    );
    const tape = new TapeWriter(material.traced, progress.journal, observer);
    const waiting = new Waiting(progress, (run) => scripts.drop(run));
    const ties = new Ties(state, progress, loaded.tied);
    const writing = new Writing(state, tape, progress, ties);
    const ruleClaims = new RuleClaims(state, tape, progress, writing);
    const runs = new Running({
      state,
      tape,
      waiting,
      progress,
      scripts,
      ruleClaims,
      writing,
      observer,
    });
    const services = new Services(material.services, state, scripts, opening.services ?? {});
    const pages = new Pages(state.parts.pages, situation, tape, progress);
    const opened = new Opened();
    const stopping = new Stopping();
    const desk = new Desk({
      state,
      runs,
      writing,
      services,
      clock,
      situation,
      ties,
      pages,
      progress,
      opened,
      stopping,
      observer,
    });
    const initially = (field: Field): Value =>
      defaultOf(field, opening.person, clock.now, clock.zone);
    const defaultOfPart = (part: Part): Value => initially(part.field);
    const corrections = new Corrections(state, progress, writing, defaultOfPart);
    const settling = new Settling({
      state,
      runs,
      ruleClaims,
      tape,
      waiting,
      progress,
      ties,
      corrections,
      stopping,
      desk,
      limit: form.settings?.runLimit ?? RUNS_PER_STEP,
    });
    const time = new Time({ clock, waiting, settling, progress, pages });
    const records = new Records({
      state,
      situation,
      clock,
      tape,
      progress,
      settling,
      ties,
      runs,
      waiting,
      corrections,
      opened,
      out: loaded.failures,
      defaultOf: defaultOfPart,
    });
    const entering = new Entering({ state, progress, situation, ties, waiting, writing });
    const rowSteps = new RowSteps({
      state,
      progress,
      situation,
      writing,
      defaults: (field) =>
        Object.fromEntries(field.fields.map((cell) => [cell.name, initially(cell)])),
    });
    const pageSteps = new PageSteps({
      state,
      situation,
      progress,
      settling,
      stopping,
      time,
      pages,
      tape,
      checks: form.settings?.checkPages ?? true,
    });
    const submitting = new Submitting({
      state,
      situation,
      progress,
      settling,
      stopping,
      time,
      tape,
    });

    this.#opening = opening;
    this.#state = state;
    this.#progress = progress;
    this.#tape = tape;
    this.#waiting = waiting;
    this.#settling = settling;
    this.#clock = clock;
    this.#situation = situation;
    this.#entering = entering;
    this.#time = time;
    this.#pages = pages;
    this.#records = records;
    this.#writing = writing;
    this.#desk = desk;
    this.#out = loaded.failures;
    this.#doing = {
      set: (step, cause) => entering.set(step.set, step.to, cause),
      input: (step, cause) => entering.input(step.input, step.to, cause),
      focus: (step, cause) => entering.focus(step.focus, cause),
      blur: (step, cause) => entering.blur(step.blur, cause),
      click: (step, cause) => entering.click(step.click, cause),
      wait: (step, cause) => {
        settling.settle(cause);
        time.pass(clock.now + Math.max(0, step.wait), cause);
        return null;
      },
      turnTo: (step, cause) => pageSteps.turnTo(step.turnTo, cause),
      addRow: (step, cause) =>
        rowSteps.add(step.addRow, Array.isArray(step.with) ? step.with : [step.with ?? {}], cause),
      removeRow: (step, cause) => rowSteps.remove(step.removeRow, cause),
      moveRow: (step, cause) => rowSteps.move(step.moveRow, step.to, cause),
      next: (_, cause) => records.turn(1, cause),
      previous: (_, cause) => records.turn(-1, cause),
      answer: (step, cause) => this.#answerByHand(step, cause),
      fromChild: (step, cause) => this.#fromChild(step, cause),
      submit: (_, cause) => submitting.submit(cause),
    };
  }

  /** The id that a new record is saved under, where it was not known at the opening. */
  identify(newId: string): void {
    this.#situation.newId = newId;
  }

  /** Opens the form: base and record, `load` handlers, rules. To be called once, before any step. */
  open(): Answer {
    this.#records.open(this.#opening.record);
    this.#afterSteps();
    return this.#answer(null);
  }

  /** Does one step of a person, settles, and gives the answer. */
  do(step: TimedStep): Answer {
    let bare: Step = step;
    if (step.at !== undefined) {
      const { at, ...rest } = step;
      this.#time.pass(this.#opening.clock + at, null);
      bare = rest as Step;
    }
    const refused = this.#step(bare, 'person');
    this.#afterSteps();
    return this.#answer(refused);
  }

  /** What scripts asked to follow as steps of their own. */
  #afterSteps(): void {
    for (let i = 0; this.#progress.submitWanted && i < SUBMISSIONS_PER_STEP; i++) {
      this.#progress.submitWanted = false;
      this.#step({ submit: true }, 'script');
    }
  }

  #step(step: Step, by: 'person' | 'script'): string | null {
    this.#progress.begin(false);
    const entry = this.#tape.add(null, { type: 'step', step, clock: this.#clock.now, by });
    const cause = entry?.n ?? null;
    const why = this.#begin(step, cause);
    if (why !== null) {
      this.#tape.add(cause, { type: 'refused', why });
      // What was typed before is committed all the same.
      this.#settling.settle(cause);
      return why;
    }
    this.#settling.settle(cause);
    this.#pages.keep(cause);
    return null;
  }

  /** Accepts a step and sets off what it does; or says why a person cannot do it. */
  #begin(step: Step, cause: number | null): string | null {
    const kind = kindOfStep(step);
    // A step on the field that is typed in says itself what becomes of what is typed.
    if (!TYPES.has(kind)) this.#entering.commitTyping(cause);
    return this.#doing[kind](step as never, cause);
  }

  /** Somebody answers a call of a service in its place. */
  #answerByHand(step: Steps['answer'], cause: number | null): string | null {
    if (!this.#settling.settle(cause)) return null;
    const call = this.#waiting.pending(step.answer, step.which ?? 0);
    if (call === null) return `nothing waits for ${step.answer}`;
    call.due = Infinity;
    this.#time.pass(this.#clock.now + (step.after ?? 0), cause);
    // What was let through meanwhile may have superseded the run that waits.
    if (!this.#waiting.calls.includes(call)) return null;
    call.due = this.#clock.now;
    const came =
      step.usual === true
        ? null
        : step.fails === undefined
          ? { ok: true as const, value: deepFreeze(step.with ?? null) }
          : { ok: false as const, reason: step.fails };
    this.#progress.begin(false);
    this.#settling.resume(call, cause, came);
    return null;
  }

  /** A form that was opened from this one sets a value here, as a script would. */
  #fromChild(
    { fromChild: name, to: offered }: Steps['fromChild'],
    cause: number | null,
  ): string | null {
    const part = partAt(this.#state.parts, name);
    if (part === null || part.sort !== 'field' || part.rows !== null)
      return `there is no field "${name}"`;
    const accepted = accept(offered, part.field, this.#state.surroundings(part));
    if (!accepted.ok) return `${part.label} takes ${accepted.takes}`;
    this.#progress.queue.push(() => {
      if (!equal(part.value, accepted.value))
        this.#writing.enter(part, accepted.value, 'script', cause);
    });
    return null;
  }

  /** All that stands now, without anything being noted as told. */
  look(): Look {
    // While the form is being opened nobody is on a page yet, and would see the first.
    const page = this.#situation.page ?? this.#pages.all.find(({ onScreen }) => onScreen);
    return lookAt(this.#state, page?.name ?? null, this.#clock.now);
  }

  /** Where scripts ask; for whoever asks between two steps. */
  get desk(): Desk {
    return this.#desk;
  }

  #answer(refused: string | null): Answer {
    if (this.#state.faults.size > 0 && this.#progress.outcome === null) dropMended(this.#state);
    const { form } = this.#state.parts;
    const replaced = form.now('replaced') as string | { text: string; final: boolean } | null;
    const { changes, rows } = tell(this.#state);
    const { messages, logs: log, toParent, errors, outcome: submit } = this.#progress.take();
    return {
      refused,
      changes,
      rows,
      record: this.#situation.record,
      clock: this.#clock.now,
      waiting: this.#waiting.runs.map((run) => ({
        behaviour: run.handler.behaviour.name,
        line: run.handler.line,
        part: run.part?.name ?? null,
        calls: [...run.calls].map(({ name, args, since, due }) => ({
          name,
          args,
          since,
          due: Number.isFinite(due) ? due : null,
        })),
      })),
      toParent,
      page: this.#situation.page?.name ?? null,
      replaced: typeof replaced === 'string' ? { text: replaced, final: false } : replaced,
      notice: form.now('message') as Answer['notice'],
      messages,
      log,
      errors,
      failing: [...this.#out, ...this.#settling.failing.values()],
      submit,
      changed: this.#state.changed,
      tape: this.#tape.take(),
    };
  }
}

const TYPES: ReadonlySet<StepKind> = new Set(['set', 'input', 'focus', 'blur']);
