/** Something was read before a call, changed by a person while the call was open, and what follows still goes by the old value. */
import type { Exploration } from '../exploration';
import { columnOf } from '../part-names';
import { isSound, type HeldStep, type Ran } from '../play';
import { differencesOf } from '../state';

export function decidedBefore(search: Exploration, ran: Ran): void {
  for (const { part, said } of ran.decidedBefore) {
    const first = changedFirst(ran, part);
    // What is said after the answer is the same when it was changed before: it did not go by that.
    if (first !== null) {
      const other = search.quietly(ran.opening, first);
      const differs = differencesOf(search.ground.form, ran, other).some((difference) =>
        said.some(
          (one) =>
            one.part === columnOf(difference.part) && sameAspect(one.aspect, difference.aspect),
        ),
      );
      if (isSound(other) && !differs) continue;
    }
    search.report(
      'decided-before',
      'wrong',
      { part, aspect: 'value' },
      said,
      `${part} was changed while a call was open; what is said after the answer (${said[0]!.part}, ${said[0]!.aspect}) goes by what it was before`,
      ran,
    );
  }
}

/** Aspects by the names under which scripts speak of them and people meet them. */
const MET_AS: Readonly<Record<string, string>> = { shown: 'onScreen', locked: 'editable' };

const sameAspect = (said: string, met: string) => (MET_AS[said] ?? said) === met;

/** The same session with the change before what made the call; null where calls are not answered by hand, or it was first. */
function changedFirst({ steps }: Ran, part: string): HeldStep[] | null {
  if (!steps.some((step) => 'answer' in step)) return null;
  const at = steps.findLastIndex((step) => 'set' in step && columnOf(step.set) === part);
  return at < 1
    ? null
    : [...steps.slice(0, at - 1), steps[at]!, steps[at - 1]!, ...steps.slice(at + 1)];
}
