/** What people did in filling-ins, done again on two versions: which of them end differently. */
import type { Stage } from '../explore/ground';
import type { Form } from '../form/definition';
import { NOTHING_SEEN, partsSeen, seenAfter } from '../scenario/seen';
import type { Answer, Opening, TimedStep } from '../session/step';
import type { Failure } from '../wire/failures';
import { differing, type Difference, type Ended } from './difference';
import { renamedOpening, renamedStep, renamesBetween, type Renames } from '../scenario/renamed';

/** One of the two versions, in a machine of its own. */
interface Played {
  form: Form;
  stage: Pick<Stage, 'open' | 'do'>;
}

/** What somebody did, in the names of the version that it was done in. */
export interface DoneByPeople {
  opening: Opening;
  /** With the times at which they were done. */
  steps: readonly TimedStep[];
}

/**
 * Only how each ends matters, so the scripts need not be traced, and no line is named: whoever opens one as a recording
 * can ask it.
 */
export class Replaying {
  readonly #renames: Renames;

  constructor(private readonly versions: { before: Played; after: Played }) {
    this.#renames = renamesBetween(versions.before.form, versions.after.form);
  }

  /** What differs at the end, by the names of the later version. `done` has the names of the former one. */
  differences(done: DoneByPeople): Difference[] {
    const later = {
      opening: renamedOpening(done.opening, this.#renames),
      steps: done.steps.map((step) => renamedStep(step, this.#renames)),
    };
    const { before, after } = this.versions;
    return differing(asDone(before, done), asDone(after, later), after.form, this.#renames).map(
      (one) => ({
        ...one,
        way: later,
        lines: { before: null, after: null },
        follows: null,
        also: [],
      }),
    );
  }
}

/** A session at the pace at which it was done. Hardly two have a beginning in common, so nothing is kept of it. */
function asDone({ form, stage }: Played, { opening, steps }: DoneByPeople): Ended {
  const messages: string[] = [];
  const failures: Failure[] = [];
  let seen = NOTHING_SEEN;
  const take = (answer: Answer) => {
    messages.push(...answer.messages.map(({ text }) => text));
    failures.push(...answer.errors);
    seen = seenAfter(seen, answer);
  };
  take(stage.open(opening));
  for (const step of steps) take(stage.do(step));
  return { parts: partsSeen(seen, form), seen, messages, failures };
}
