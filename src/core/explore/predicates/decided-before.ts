/** Something was read before a call, changed by a person while the call was open, and what follows still goes by the old value. */
import type { Exploration } from '../exploration';
import { columnOf } from '../part-names';
import { isSound, type HeldStep, type Ran } from '../play';
import { saidAbout } from '../said';
import { differencesOf } from '../state';

export function decidedBefore(search: Exploration, ran: Ran): void {
  for (const { part, said } of ran.decidedBefore) {
    const first = changedFirst(ran, part);
    // Where the same is said after the answer when the field was changed before the call, nothing went by its old value.
    if (first !== null) {
      const other = search.quietly(ran.opening, first);
      const differs = differencesOf(search.ground.form, ran, other).some(
        (difference) =>
          saidAbout(said, difference.part, difference.aspect, search.ground.form).length > 0,
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

/** The same session with the change before what made the call; null where calls are not answered by hand, or it was first. */
function changedFirst({ steps }: Ran, part: string): HeldStep[] | null {
  if (!steps.some((step) => 'answer' in step)) return null;
  const at = steps.findLastIndex((step) => 'set' in step && columnOf(step.set) === part);
  return at < 1
    ? null
    : [...steps.slice(0, at - 1), steps[at]!, steps[at - 1]!, ...steps.slice(at + 1)];
}
