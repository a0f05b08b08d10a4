/** A former version beside the form as it is: the same is done in both, whichever of them it is done in. */
import { differingNow, type Difference, type Differing } from '@/core/compare/difference';
import {
  renamedOpening,
  renamedPart,
  renamedStep,
  renamesBetween,
  turned,
  type Renames,
} from '@/core/scenario/renamed';
import type { Form } from '@/core/form/definition';
import type { Open } from '@/core/scenario/definition';
import type { Seen } from '@/core/scenario/seen';
import type { Material } from '@/core/session/material';
import type { Step, TimedStep } from '@/core/session/step';
import type { FormerVersion } from '@/core/workspace/release-changes';
import { engineInWorker } from '@/workers/engine-in-browser';
import { LiveSession, type SessionState } from '../../session/live-session';
import type { FormRoom } from '../form/form';

export class Beside {
  /** That of the former version; it follows the live form. */
  readonly session: LiveSession<Open>;
  readonly #renames: Renames;
  readonly #back: Renames;
  #deafen = () => undefined as void;

  constructor(
    private readonly live: FormRoom,
    readonly former: FormerVersion,
    material: Material,
    /** What was opened; null where nothing of it was. */
    readonly difference: Difference | null,
    now: Form,
  ) {
    this.#renames = renamesBetween(former.form, now);
    this.#back = turned(this.#renames);
    this.session = new LiveSession<Open>({
      engine: engineInWorker,
      material: () => material,
      openingOf: (open) => renamedOpening(live.openingFor(open), this.#back),
      open: live.session.state.open,
      steps: this.#formerly(live.session.state.steps),
      time: 'followed',
      keepsRefused: true,
    });
  }

  async begin(): Promise<void> {
    this.#deafen = this.live.session.store.subscribe((now, before) => this.#follow(now, before));
    const { open, steps, at } = this.live.session.state;
    // Steps that were done while its code was loaded.
    if (open !== this.session.state.open || steps.length !== this.session.state.steps.length)
      this.session.store.setState({ open, steps: this.#formerly(steps), at });
    await this.session.begin();
  }

  end(): void {
    this.#deafen();
    this.session.end();
  }

  /** A step that is done in the former version is done in the form as it is, which this one follows. */
  step(done: Step): void {
    void this.live.step(renamedStep(done, this.#renames));
  }

  /** What differs at a moment of both, by the names of the form as it is. */
  differing(before: Seen, after: { form: Form; seen: Seen }): Differing[] {
    return differingNow({ form: this.former.form, seen: before }, after, this.#renames);
  }

  /** A part as the former version calls it. */
  formerly = (part: string): string => renamedPart(part, this.#back);

  #follow(now: SessionState<Open>, before: SessionState<Open>): void {
    if (now.steps === before.steps && now.open === before.open) {
      if (now.at !== before.at) this.session.lookAt(now.at);
      return;
    }
    const known = this.session.state.steps.length;
    const goesOn =
      now.open === before.open &&
      now.steps.length > known &&
      before.steps.every((step, i) => step === now.steps[i]);
    if (!goesOn) return void this.session.show(now.open, this.#formerly(now.steps), now.at);
    for (const step of this.#formerly(now.steps.slice(known))) void this.session.step(step);
  }

  #formerly = (steps: readonly TimedStep[]): TimedStep[] =>
    steps.map((step) => renamedStep(step, this.#back));
}
