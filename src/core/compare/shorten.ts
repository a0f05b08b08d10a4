/** The shortest session that shows a difference, opened as simply as it can be, with the simplest values. */
import { opensOwnRecord } from '../explore/finding';
import type { Ground } from '../explore/ground';
import { minimized } from '../explore/minimized';
import { rowsWhole, withoutWaits, type HeldStep } from '../explore/play';
import { simplerOpenings, simplerSteps } from '../explore/simpler';
import { isEmpty, type Values } from '../form/value';
import type { Opening } from '../session/step';
import type { Both, Shared } from './both';
import { keyOf, type Difference } from './difference';

/** Sessions that shortening one difference may take. */
const SESSIONS = 200;

/** The steps by which the values of a record would have been entered. */
function entering({ record }: Opening): HeldStep[] {
  return Object.entries(record?.values ?? {}).flatMap(([name, value]): HeldStep[] => {
    if (isEmpty(value)) return [];
    if (Array.isArray(value) && value.some((one) => typeof one === 'object'))
      return value.map((row) => ({ addRow: name, with: row as Values }));
    return [{ set: name, to: value }];
  });
}

export function shortened(difference: Difference, both: Both, ground: Ground): Difference {
  const isByHand = difference.way.steps.some((step) => 'answer' in step);
  let left = SESSIONS;
  let last: Difference = difference;
  const still = (way: Shared): boolean => {
    if (left-- <= 0) return false;
    const played = both.play(way);
    const all = both.differing(played);
    const found = all.find((one) => keyOf(one) === keyOf(difference));
    if (found === undefined) return false;
    last = both.difference(found, way.opening, played, all);
    return true;
  };
  let { opening } = difference.way;
  let steps: readonly HeldStep[] = isByHand
    ? difference.way.steps.map((step) => ({ ...step, hold: true }))
    : rowsWhole(withoutWaits(difference.way.steps));
  if (!still({ opening, steps })) return difference;
  if (opensOwnRecord(opening)) {
    // What a record was saved with says more when it is entered.
    const entered = {
      opening: { ...opening, record: null },
      steps: [...entering(opening), ...steps],
    };
    if (still(entered)) ({ opening, steps } = entered);
  }
  for (const simplified of simplerOpenings(opening, isByHand, ground))
    if (still({ opening: simplified(opening), steps })) opening = simplified(opening);
  steps = minimized(steps, (some) => still({ opening, steps: some }));
  steps = simplerSteps(steps, ground, (some) => still({ opening, steps: some }));
  return last;
}
