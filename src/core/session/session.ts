/**
 * A form in use, from opening to closing: takes steps, settles, answers. It stands outside the machine that its scripts
 * run in and asks it to run them (`scripts.ts`); what they read, say and ask comes back through the `desk.ts`. One
 * session opens once; another opening is another session.
 *
 * The stations of a step are accept (may a person do this? `entering.ts` and its like), write (`writing.ts`), settle
 * (`settling.ts`) and answer (`telling.ts`). Time passes only in `time.ts`.
 */
import { SUBMISSIONS_PER_STEP } from '../limits';
import { accept } from '../form/kinds';
import { deepFreeze, equal } from '../form/value';
import { dropMended } from './checking';
import { checkpointOf, type Restore } from './checkpoint';
import type { Desk } from './desk';
import { lookAt, type Look } from './looking';
import type { Observer } from './observer';
import type { Loaded, Material } from './material';
import { roomsOf, type Rooms } from './rooms';
import type { Scripts } from './scripts';
import {
  kindOfStep,
  type Answer,
  type Opening,
  type Step,
  type StepKind,
  type Steps,
  type TimedStep,
} from './step';
import { tell } from './telling';
import { partAt } from './tree';

type Doing = { [K in StepKind]: (step: Steps[K], cause: number | null) => string | null };

export class Session {
  readonly #rooms: Rooms;
  readonly #doing: Doing;

  constructor(
    material: Material,
    loaded: Loaded,
    scripts: Scripts,
    private readonly opening: Opening,
    observer: Observer | null = null,
  ) {
    // Scripts get these as they are.
    deepFreeze([opening.person, opening.launch]);
    this.#rooms = roomsOf(material, loaded, scripts, opening, observer);
    const { entering, time, clock, settling, pageSteps, rowSteps, records, submitting } =
      this.#rooms;
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
    this.#rooms.situation.newId = newId;
  }

  /** Keeps how the session stands between two steps, to go back to. What scripts hold is not the session's to keep. */
  checkpoint(): Restore {
    return checkpointOf(this.#rooms);
  }

  /** Opens the form: base and record, `load` handlers, rules. To be called once, before any step. */
  open(): Answer {
    const cause = this.#rooms.records.open(this.opening.record);
    this.#rooms.invariants.check(cause);
    this.#afterSteps();
    return this.#answer(null);
  }

  /** Does one step of a person, settles, and gives the answer. */
  do(step: TimedStep): Answer {
    let bare: Step = step;
    if (step.at !== undefined) {
      const { at, ...rest } = step;
      this.#rooms.time.pass(this.opening.clock + at, null);
      bare = rest as Step;
    }
    const refused = this.#step(bare, 'person');
    this.#afterSteps();
    return this.#answer(refused);
  }

  /** What scripts asked to follow as steps of their own. */
  #afterSteps(): void {
    for (let i = 0; this.#rooms.progress.submitWanted && i < SUBMISSIONS_PER_STEP; i++) {
      this.#rooms.progress.submitWanted = false;
      this.#step({ submit: true }, 'script');
    }
  }

  #step(step: Step, by: 'person' | 'script'): string | null {
    this.#rooms.progress.begin(false);
    const entry = this.#rooms.tape.add(null, {
      type: 'step',
      step,
      clock: this.#rooms.clock.now,
      by,
    });
    const cause = entry?.n ?? null;
    const why = this.#begin(step, cause);
    if (why !== null) {
      this.#rooms.tape.add(cause, { type: 'refused', why });
      // What was typed before is committed all the same.
      this.#rooms.settling.settle(cause);
      this.#rooms.invariants.check(cause);
      return why;
    }
    this.#rooms.settling.settle(cause);
    this.#rooms.pages.keep(cause);
    this.#rooms.invariants.check(cause);
    return null;
  }

  /** Accepts a step and sets off what it does; or says why a person cannot do it. */
  #begin(step: Step, cause: number | null): string | null {
    const kind = kindOfStep(step);
    // A step on the field that is typed in says itself what becomes of what is typed.
    if (!TYPES.has(kind)) this.#rooms.entering.commitTyping(cause);
    return this.#doing[kind](step as never, cause);
  }

  /** Somebody answers a call of a service in its place. */
  #answerByHand(step: Steps['answer'], cause: number | null): string | null {
    if (!this.#rooms.settling.settle(cause)) return null;
    const call = this.#rooms.waiting.pending(step.answer, step.which ?? 0);
    if (call === null) return `nothing waits for ${step.answer}`;
    call.due = Infinity;
    this.#rooms.time.pass(this.#rooms.clock.now + (step.after ?? 0), cause);
    // What was let through meanwhile may have superseded the run that waits.
    if (!this.#rooms.waiting.calls.includes(call)) return null;
    call.due = this.#rooms.clock.now;
    const came =
      step.usual === true
        ? null
        : step.fails === undefined
          ? { ok: true as const, value: deepFreeze(step.with ?? null) }
          : { ok: false as const, reason: step.fails };
    this.#rooms.progress.begin(false);
    this.#rooms.settling.resume(call, cause, came);
    return null;
  }

  /** A form that was opened from this one sets a value here, as a script would. */
  #fromChild(
    { fromChild: name, to: offered }: Steps['fromChild'],
    cause: number | null,
  ): string | null {
    const part = partAt(this.#rooms.state.parts, name);
    if (part === null || part.sort !== 'field' || part.rows !== null)
      return `there is no field "${name}"`;
    const accepted = accept(offered, part.field, this.#rooms.state.offers.surroundings(part));
    if (!accepted.ok) return `${part.label} takes ${accepted.takes}`;
    this.#rooms.progress.queue.push(() => {
      if (!equal(part.value, accepted.value))
        this.#rooms.writing.enter(part, accepted.value, 'script', cause);
    });
    return null;
  }

  /** All that stands now, without anything being noted as told. */
  look(): Look {
    // While the form is being opened nobody is on a page yet, and would see the first.
    const page =
      this.#rooms.situation.page ?? this.#rooms.pages.all.find(({ onScreen }) => onScreen);
    return lookAt(this.#rooms.state, page?.name ?? null, this.#rooms.clock.now);
  }

  /** Where scripts ask; for whoever asks between two steps. */
  get desk(): Desk {
    return this.#rooms.desk;
  }

  #answer(refused: string | null): Answer {
    if (this.#rooms.state.faults.size > 0 && this.#rooms.progress.outcome === null)
      dropMended(this.#rooms.state);
    const { form } = this.#rooms.state.parts;
    const replaced = form.now('replaced') as string | { text: string; final: boolean } | null;
    const { changes, rows } = tell(this.#rooms.state);
    const { messages, logs: log, toParent, errors, outcome: submit } = this.#rooms.progress.take();
    return {
      refused,
      changes,
      rows,
      record: this.#rooms.situation.record,
      clock: this.#rooms.clock.now,
      waiting: this.#rooms.waiting.runs.map((run) => ({
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
      page: this.#rooms.situation.page?.name ?? null,
      replaced: typeof replaced === 'string' ? { text: replaced, final: false } : replaced,
      notice: form.now('message') as Answer['notice'],
      messages,
      log,
      errors,
      failing: [...this.#rooms.out, ...this.#rooms.settling.failing.values()],
      broken: this.#rooms.invariants.broken,
      submit,
      changed: this.#rooms.state.changed,
      tape: this.#rooms.tape.take(),
    };
  }
}

const TYPES: ReadonlySet<StepKind> = new Set(['set', 'input', 'focus', 'blur']);
