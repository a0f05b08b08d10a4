/**
 * Submitting: waits for open runs, checks what is on screen, runs `submit` handlers, checks again what
 * they wrote, saves, runs `saved` handlers. All of it is one step.
 */
import { equal } from '../form/value';
import { check, setFault, type Found } from './checking';
import { submittedValues, valuesOf } from './submitted-values';
import { OF_FORM, type Progress } from './progress';
import type { Settling } from './settling';
import type { Situation } from './situation';
import type { State } from './state';
import type { SubmitOutcome } from './step';
import { VIEWING } from './step-words';
import type { Stopping } from './stopping';
import type { TapeWriter } from './tape-writer';
import type { Time } from './time';

const UNSETTLED = {
  part: null,
  says: 'The behaviours of this form kept changing values and did not settle.',
};

export class Submitting {
  constructor(
    private readonly state: State,
    private readonly situation: Situation,
    private readonly progress: Progress,
    private readonly settling: Settling,
    private readonly stopping: Stopping,
    private readonly time: Time,
    private readonly tape: TapeWriter,
  ) {}

  /** Why it cannot be done, or null; whether it was saved is the outcome. */
  submit(cause: number | null): string | null {
    if (this.situation.viewing) return VIEWING;
    const stops: SubmitOutcome['stops'] = [];
    if (!this.settling.settle(cause)) stops.push(UNSETTLED);
    else if (this.#isReplaced())
      return 'the form has been replaced by a message and cannot be submitted';
    else if (this.#waited(stops, cause)) {
      if (this.#isReplaced())
        return 'the form has been replaced by a message and cannot be submitted';
      this.#forgetFaults();
      stops.push(...this.#check(cause));
      if (stops.length === 0) this.#askHandlers(stops, cause);
    }
    if (stops.length > 0) {
      this.#finish(false, stops, cause);
      return null;
    }
    this.situation.record ??= this.situation.newId;
    this.#finish(true, stops, cause);
    this.state.rebase();
    // What is saved stays: what `saved` handlers do is taken back by itself where they do not settle.
    this.progress.commit();
    this.progress.queue.push({
      ...OF_FORM,
      type: 'saved',
      by: 'form',
      cause,
      extra: { id: this.situation.record },
    });
    this.settling.settle(cause);
    this.situation.isNew = false;
    return null;
  }

  #isReplaced(): boolean {
    return this.state.parts.form.now('replaced') !== null;
  }

  /** Runs the handlers that may stop it; each stop is noted. */
  #askHandlers(stops: SubmitOutcome['stops'], cause: number | null): void {
    const before = valuesOf(this.state);
    this.situation.submitting = true;
    this.progress.queue.push({
      ...OF_FORM,
      type: 'submit',
      by: 'person',
      cause,
      stop: (says, part, readsOf) => {
        stops.push({ part: part?.address ?? null, says });
        if (part?.sort === 'field') setFault(this.state, part, says, readsOf);
      },
    });
    if (!this.settling.settle(cause)) stops.push(UNSETTLED);
    this.#waited(stops, cause);
    this.stopping.end();
    this.situation.submitting = false;
    if (stops.length === 0 && !equal(before, valuesOf(this.state)))
      stops.push(...this.#check(cause));
  }

  #waited(stops: SubmitOutcome['stops'], cause: number | null): boolean {
    const inVain = this.time.waitOut(cause);
    if (inVain !== null) stops.push({ part: null, says: inVain });
    return inVain === null;
  }

  #forgetFaults(): void {
    for (const part of this.state.faults.keys()) this.state.outdated.parts.add(part);
    this.state.faults.clear();
    for (const part of this.state.parts.fields) this.state.outdated.parts.add(part);
  }

  #check(cause: number | null): Found[] {
    const faults = check(this.state, null);
    this.tape.add(cause, { type: 'checked', faults });
    return faults;
  }

  #finish(saved: boolean, stops: SubmitOutcome['stops'], cause: number | null): void {
    const outcome: SubmitOutcome = {
      saved,
      stoppedBy: stops[0]?.part ?? null,
      stops,
      id: saved ? this.situation.record : null,
      ...submittedValues(this.state),
    };
    this.progress.setOutcome(outcome);
    this.tape.add(cause, { type: 'outcome', ...outcome });
  }
}
