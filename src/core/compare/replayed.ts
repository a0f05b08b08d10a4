/** What people did in filling-ins, done again on two versions: which of them end differently. */
import { Checkpoints, type Played } from '../explore/checkpoints';
import { ranOf, type Ran } from '../explore/play';
import { NOTHING_SEEN, seenAfter, type Seen } from '../scenario/seen';
import type { Answer, Opening, Step, TimedStep } from '../session/step';
import { Both } from './both';
import type { Difference } from './difference';
import { renamedOpening, renamedStep, renamesBetween, type Renames } from './renamed';
import type { Version } from './version';

/** What somebody did, in the names of the version that it was done in. */
export interface DoneByPeople {
  opening: Opening;
  /** With the times at which they were done. */
  steps: readonly TimedStep[];
}

export class Replaying {
  readonly #both: Both;
  readonly #renames: Renames;

  constructor(private readonly versions: { before: Version; after: Version }) {
    this.#renames = renamesBetween(versions.before.ground.form, versions.after.ground.form);
    const unused = { before: new Checkpoints(), after: new Checkpoints() };
    this.#both = new Both(versions, this.#renames, unused);
  }

  /** What differs at the end, by the names of the later version. `done` has the names of the former one. */
  differences(done: DoneByPeople): Difference[] {
    const later = {
      opening: renamedOpening(done.opening, this.#renames),
      steps: done.steps.map((step) => renamedStep(step, this.#renames)),
    };
    const { before, after } = this.versions;
    return this.#both.differences(later.opening, {
      before: asDone(before, done),
      after: asDone(after, later),
    });
  }
}

/** A session at the pace at which it was done. Hardly two have a beginning in common, so nothing is kept of it. */
function asDone({ ground: { form }, stage }: Version, { opening, steps }: DoneByPeople): Ran {
  const first = stage.open(opening);
  const opened = seenAfter(NOTHING_SEEN, first);
  const answers: Answer[] = [first];
  const refused: Step[] = [];
  let seen: Seen = opened;
  for (const step of steps) {
    const answer = stage.do(step);
    answers.push(answer);
    if (answer.refused !== null) refused.push(step);
    seen = seenAfter(seen, answer);
  }
  const played: Played = { answers, done: steps, refused, opened, seen };
  return ranOf(form, opening, played);
}
