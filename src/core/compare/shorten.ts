/** The shortest session that shows a difference, opened as simply as it can be, with the simplest values. */
import type { Ground } from '../explore/ground';
import { minimized } from '../explore/minimized';
import { rowsWhole, withoutWaits, type HeldStep } from '../explore/play';
import { simplerOpenings, simplerSteps } from '../explore/simpler';
import type { Both, Shared } from './both';
import { keyOf, type Difference } from './difference';

/** Sessions that shortening one difference may take. */
const SESSIONS = 200;

export function shortened(difference: Difference, both: Both, ground: Ground): Difference {
  const isByHand = difference.way.steps.some((step) => 'answer' in step);
  let left = SESSIONS;
  let last: Difference = difference;
  const still = (way: Shared): boolean => {
    if (left-- <= 0) return false;
    const played = both.play(way);
    const found = both.differing(played).find((one) => keyOf(one) === keyOf(difference));
    if (found === undefined) return false;
    const { before, after } = both.deciding(played, found);
    last = {
      ...difference,
      ...found,
      way: { opening: way.opening, steps: played.after.steps },
      lines: { before: before?.at ?? null, after: after?.at ?? null },
    };
    return true;
  };
  let { opening } = difference.way;
  let steps: readonly HeldStep[] = isByHand
    ? difference.way.steps.map((step) => ({ ...step, hold: true }))
    : rowsWhole(withoutWaits(difference.way.steps));
  if (!still({ opening, steps })) return difference;
  for (const simplified of simplerOpenings(opening, isByHand, ground))
    if (still({ opening: simplified(opening), steps })) opening = simplified(opening);
  steps = minimized(steps, (some) => still({ opening, steps: some }));
  steps = simplerSteps(steps, ground, (some) => still({ opening, steps: some }));
  return last;
}
