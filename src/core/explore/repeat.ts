/** How what a search has found is found again from fewer steps: by the relation that found it, on the sessions that are left. */
import { equal, isEmpty } from '../form/value';
import type { Opening } from '../session/step';
import type { Exploration } from './exploration';
import type { Finding, Way } from './finding';
import { withoutWaits, type HeldStep, type Ran } from './play';
import { butServices, enteredMeanwhile, leftWaiting } from './relations/answers';
import { atLoad } from './relations/at-load';
import { movedOn, zones } from './relations/openings';
import { aroundPages } from './relations/pages';
import { exchanged } from './relations/rows';
import { sameEnd } from './relations/same-end';
import { stoppedAgain } from './relations/submitting';

/** How a finding is found again from the steps that its sessions share. */
export interface Repeat {
  common: readonly HeldStep[];
  /** `isLast` where it is asked once, so that it may take long. */
  repeat(search: Exploration, common: readonly HeldStep[], isLast: boolean): void;
}

/** Null for what openings alone bring. */
export function repeatOf(finding: Finding): Repeat | null {
  const { kind, way, other } = finding;
  const isByHand = [way, other].some((one) => one?.steps.some((step) => 'answer' in step));
  const bare = isByHand ? held : ({ steps }: Way) => withoutWaits(steps);
  const steps = bare(way);
  if (kind === 'dead-end')
    return {
      common: steps.filter((step) => !('submit' in step)),
      repeat: (search, common, isLast) =>
        stoppedAgain(search, way.opening, common, finding.part, isLast),
    };
  if (other === null)
    return {
      common: steps,
      repeat: (search, common) => void search.play(way.opening, common),
    };
  const theirs = bare(other);
  switch (kind) {
    case 'at-load':
      return {
        common: steps,
        repeat: (search, common) => atLoad(search, search.play(way.opening, common)),
      };
    case 'zone': {
      const opening = { ...other.opening, zone: undefined };
      return { common: steps, repeat: (search, common) => zones(search, opening, common) };
    }
    case 'former-record':
      return afterAnother(way.opening, other.opening, steps);
    case 'late-answer':
    case 'late-answer-overwrites':
      return meanwhile(way.opening, steps);
    case 'left-waiting':
      return failing(way.opening, steps, theirs);
    case 'order-of-rows':
      return exchangedRows(way.opening, steps);
    case 'row-touches-row':
      // The same row behind another one.
      if (theirs.length > steps.length) return exchangedRows(way.opening, theirs);
      break;
    case 'order-of-answers':
    case 'failure-keeps':
      return sharing(finding, steps, other.opening, theirs);
  }
  if (!equal(way.opening as never, other.opening as never) || !SAME_END.has(kind)) return null;
  if (kind === 'order' && steps.length === theirs.length && inOrderOf(theirs, steps) !== null)
    return {
      common: steps,
      repeat: (search, common) =>
        sameEnd(
          search,
          kind,
          search.play(way.opening, common),
          search.play(way.opening, inOrderOf(theirs, common)!),
          'the same entered in another order',
        ),
    };
  if (kind === 'page-turn') {
    const turned = steps.slice(theirs.length);
    const isAgain = equal(theirs.slice(-turned.length) as never, turned as never);
    return {
      common: isAgain ? theirs.slice(0, -turned.length) : theirs,
      repeat: (search, common) => aroundPages(search, way.opening, common),
    };
  }
  return sharing(finding, steps, other.opening, theirs);
}

/** Two sessions that begin with the same steps and go on differently. */
function sharing(
  { kind, way }: Pick<Finding, 'kind' | 'way'>,
  steps: readonly HeldStep[],
  otherOpening: Opening,
  theirs: readonly HeldStep[],
): Repeat {
  let shared = 0;
  while (shared < Math.min(steps.length, theirs.length) && equal(steps[shared], theirs[shared]))
    shared++;
  const [tail, otherTail] = [steps.slice(shared), theirs.slice(shared)];
  const seen = kind === 'failure-keeps' ? butServices : (ran: Ran) => ran;
  return {
    common: steps.slice(0, shared),
    repeat: (search, common) =>
      sameEnd(
        search,
        kind,
        seen(search.play(way.opening, [...common, ...tail])),
        seen(search.play(otherOpening, [...common, ...otherTail])),
        tail.length === 0 ? 'untouched' : inShort(tail),
      ),
  };
}

/** A record that another one was left for. */
function afterAnother(
  opening: Opening,
  { record: to }: Opening,
  steps: readonly HeldStep[],
): Repeat | null {
  const { record: from } = opening;
  const last = steps.at(-1);
  if (from === null || to === null || last === undefined || !('next' in last)) return null;
  return {
    common: steps.slice(0, -1),
    repeat: (search, common) => movedOn(search, opening, from, to, common),
  };
}

/** A call, something entered while it is open, its answer. */
function meanwhile(opening: Opening, steps: readonly HeldStep[]): Repeat | null {
  const [call, set, answer] = steps.slice(-3);
  if (call === undefined || set === undefined || !('set' in set) || answer === undefined)
    return null;
  return {
    common: steps.slice(0, -3),
    repeat: (search, common) => {
      const play = (...more: HeldStep[]) => search.play(opening, [...common, ...more]);
      enteredMeanwhile(search, set.set, set.to, {
        during: play(call, set, answer),
        before: play(set, call, answer),
        after: play(call, answer, set),
      });
    },
  };
}

/** A call that fails, and the same call answered. */
function failing(
  opening: Opening,
  steps: readonly HeldStep[],
  answered: readonly HeldStep[],
): Repeat | null {
  const [call, failed] = steps.slice(-2);
  const answer = answered.at(-1);
  if (call === undefined || failed === undefined || answer === undefined) return null;
  return {
    common: steps.slice(0, -2),
    repeat: (search, common) => {
      const play = (...more: HeldStep[]) => search.play(opening, [...common, ...more]);
      leftWaiting(search, play(), play(call), play(call, answer), butServices(play(call, failed)));
    },
  };
}

/** Two rows added, in both orders; submitted at the end where that is what differs. */
function exchangedRows(opening: Opening, steps: readonly HeldStep[]): Repeat | null {
  const second = steps.findLastIndex((step) => 'addRow' in step);
  const [a, b] = [steps[second - 1], steps[second]];
  if (a === undefined || b === undefined || !('addRow' in a) || !('addRow' in b)) return null;
  return {
    common: steps.slice(0, second - 1),
    repeat: (search, common) => {
      const rows = search.rowsDrivers.find(({ name }) => name === a.addRow);
      const play = (...more: HeldStep[]) => search.play(opening, [...common, ...more]);
      if (rows !== undefined) exchanged(search, rows, play(a), play(a, b), play(b, a), play);
    },
  };
}

/** A step without the value that it enters, by which it is found among others. */
const actOf = (step: HeldStep) => ('set' in step ? `set ${step.set}` : JSON.stringify(step));

/** Steps in the order in which others have them; null where one of them is not among those. */
function inOrderOf(order: readonly HeldStep[], steps: readonly HeldStep[]): HeldStep[] | null {
  const places = order.map(actOf);
  const placed = steps.map((step) => {
    const at = places.indexOf(actOf(step));
    if (at >= 0) places[at] = '';
    return { step, at };
  });
  if (placed.some(({ at }) => at < 0)) return null;
  return placed.toSorted((a, b) => a.at - b.at).map(({ step }) => step);
}

/** The relations that compare two ends of one opening, and those that this file knows how to repeat. */
const SAME_END: ReadonlySet<Finding['kind']> = new Set([
  'not-back',
  'over-another',
  'order',
  'gone-leaves',
  'removed-row',
  'row-touches-row',
  'page-turn',
]);

/** The steps of a session whose calls are answered by hand, which waits by itself for none; without waiting at its end. */
function held({ steps }: Way): HeldStep[] {
  const last = steps.findLastIndex((step) => !('wait' in step));
  return steps.slice(0, last + 1).map((step) => ({ ...step, hold: true }));
}

function inShort(steps: readonly HeldStep[]): string {
  return steps
    .map((step) => {
      if (!('set' in step)) return Object.keys(step)[0];
      return isEmpty(step.to)
        ? `${step.set} emptied`
        : `${step.set} set to ${JSON.stringify(step.to)}`;
    })
    .join(', then ');
}
