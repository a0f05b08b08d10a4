/** How what a search has found is found again from fewer steps: by the relation that found it, on the sessions that are left. */
import { equal, isEmpty } from '../form/value';
import type { Opening } from '../session/step';
import type { Exploration } from './exploration';
import { actOf, isAnsweredByHand, type Finding, type Way } from './finding';
import { rowsWhole, withoutWaits, type HeldStep, type Ran } from './play';
import { butServices, enteredMeanwhile, leftWaiting } from './relations/answers';
import { atLoad, overwrittenAtLoad } from './relations/at-load';
import { launched, movedOn, sameRoles, zones } from './relations/openings';
import { aroundPages } from './relations/pages';
import { exchanged } from './relations/rows';
import type { AddedRow } from './simpler';
import { sameEnd } from './relations/same-end';
import { stoppedAgain } from './relations/submitting';

/** How a finding is found again from the steps that its sessions share. */
export interface Repeat {
  common: readonly HeldStep[];
  /** Rows of which one session has more or others, so that only cells of theirs can be left out. */
  rows?: readonly AddedRow[];
  /** `isLast` where it is asked once, so that it may take long. */
  repeat(
    search: Exploration,
    common: readonly HeldStep[],
    isLast: boolean,
    rows?: readonly AddedRow[],
  ): void;
}

/** Null for what this file does not know how to find again. */
export function repeatOf(finding: Finding): Repeat | null {
  const { kind, way, other } = finding;
  const bare = isAnsweredByHand(finding) ? held : ({ steps }: Way) => withoutWaits(steps);
  const steps = bare(way);
  const asked: Asked = {
    finding,
    opening: way.opening,
    steps,
    whole: rowsWhole(steps),
    theirs: other === null ? [] : bare(other),
    otherOpening: other?.opening ?? way.opening,
  };
  const repeated = REPEATED[kind];
  if (repeated !== undefined) return repeated(asked);
  if (other === null)
    return {
      common: asked.whole,
      repeat: (search, common) => void search.play(way.opening, common),
    };
  return SAME_END.has(kind) ? straight(asked) : null;
}

interface Asked {
  finding: Finding;
  opening: Opening;
  steps: readonly HeldStep[];
  /** The same, each row with its cells. */
  whole: readonly HeldStep[];
  /** Of the other session; none where there is no other. */
  theirs: readonly HeldStep[];
  otherOpening: Opening;
}

/** Kinds that are found by more than comparing two ends of one opening. */
const REPEATED: Partial<Record<Finding['kind'], (asked: Asked) => Repeat | null>> = {
  'dead-end': ({ finding, opening, whole }) => ({
    common: whole.filter((step) => !('submit' in step)),
    repeat: (search, common, isLast) => stoppedAgain(search, opening, common, finding.part, isLast),
  }),
  'at-load': ({ opening, whole }) => ({
    common: whole,
    repeat: (search, common) => atLoad(search, search.play(opening, common)),
  }),
  zone: ({ otherOpening, theirs }) => ({
    common: rowsWhole(theirs),
    repeat: (search, common) => zones(search, { ...otherOpening, zone: undefined }, common),
  }),
  'launched-differs': ({ opening: { launch }, otherOpening }) => ({
    common: [],
    repeat: (search) => launched(search, otherOpening, launch),
  }),
  'load-overwrites': ({ opening }) => ({
    common: [],
    repeat: (search) => overwrittenAtLoad(search, search.play(opening, [])),
  }),
  'same-roles-differ': ({ opening }) => ({
    common: [],
    repeat: (search) => sameRoles(search, search.play(opening, [])),
  }),
  'former-record': afterAnother,
  'late-answer': meanwhile,
  'late-answer-overwrites': meanwhile,
  'left-waiting': failing,
  'order-of-rows': ({ opening, whole }) => exchangedRows(opening, whole),
  'row-touches-row': (asked) =>
    // The same row behind another one.
    asked.theirs.length > asked.steps.length
      ? exchangedRows(asked.opening, rowsWhole(asked.theirs))
      : straight(asked),
  'order-of-answers': sharing,
  'failure-keeps': sharing,
  order: (asked) => reordered(asked) ?? straight(asked),
  'page-turn': turned,
};

/** Two ends of one opening. */
function straight(asked: Asked): Repeat | null {
  return equal(asked.opening as never, asked.otherOpening as never) ? sharing(asked) : null;
}

/** The same steps in another order. */
function reordered({ finding, opening, otherOpening, whole, theirs }: Asked): Repeat | null {
  const others = rowsWhole(theirs);
  const isSame = equal(opening as never, otherOpening as never) && whole.length === others.length;
  if (!isSame || inOrderOf(others, whole) === null) return null;
  return {
    common: whole,
    repeat: (search, common) =>
      sameEnd(
        search,
        finding.kind,
        search.play(opening, common),
        search.play(opening, inOrderOf(others, common)!),
        'the same entered in another order',
      ),
  };
}

function turned({ opening, steps, theirs }: Asked): Repeat {
  const turns = steps.slice(theirs.length);
  const isAgain = equal(theirs.slice(-turns.length) as never, turns as never);
  return {
    common: rowsWhole(isAgain ? theirs.slice(0, -turns.length) : theirs),
    repeat: (search, common) => aroundPages(search, opening, common),
  };
}

/** Two sessions that begin with the same steps and go on differently. */
function sharing({ finding: { kind }, opening, otherOpening, steps, theirs }: Asked): Repeat {
  let shared = 0;
  while (shared < Math.min(steps.length, theirs.length) && equal(steps[shared], theirs[shared]))
    shared++;
  const [tail, otherTail] = [rowsWhole(steps.slice(shared)), rowsWhole(theirs.slice(shared))];
  const added = tail.filter((step) => 'addRow' in step);
  const seen = kind === 'failure-keeps' ? butServices : (ran: Ran) => ran;
  return {
    common: rowsWhole(steps.slice(0, shared)),
    rows: added,
    repeat: (search, common, _isLast, rows = added) => {
      const put = (step: HeldStep) => rows[added.findIndex((row) => equal(row, step))] ?? step;
      sameEnd(
        search,
        kind,
        seen(search.play(opening, [...common, ...tail.map(put)])),
        seen(search.play(otherOpening, [...common, ...otherTail.map(put)])),
        tail.length === 0 ? 'untouched' : inShort(tail),
      );
    },
  };
}

/** A record that another one was left for. */
function afterAnother({ opening, otherOpening: { record: to }, whole }: Asked): Repeat | null {
  const { record: from } = opening;
  const last = whole.at(-1);
  if (from === null || to === null || last === undefined || !('next' in last)) return null;
  return {
    common: whole.slice(0, -1),
    repeat: (search, common) => movedOn(search, opening, from, to, common),
  };
}

/** A call, something entered while it is open, its answer. */
function meanwhile({ opening, steps }: Asked): Repeat | null {
  const [call, set, answer] = steps.slice(-3);
  if (call === undefined || set === undefined || !('set' in set) || answer === undefined)
    return null;
  return {
    common: rowsWhole(steps.slice(0, -3)),
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
function failing({ opening, steps, theirs }: Asked): Repeat | null {
  const [call, failed] = steps.slice(-2);
  const answer = theirs.at(-1);
  if (call === undefined || failed === undefined || answer === undefined) return null;
  return {
    common: rowsWhole(steps.slice(0, -2)),
    repeat: (search, common) => {
      const play = (...more: HeldStep[]) => search.play(opening, [...common, ...more]);
      leftWaiting(search, play(), play(call), play(call, answer), butServices(play(call, failed)));
    },
  };
}

/** Two rows added, in both orders; submitted at the end where that is what differs. */
function exchangedRows(opening: Opening, whole: readonly HeldStep[]): Repeat | null {
  const second = whole.findLastIndex((step) => 'addRow' in step);
  const both = whole.slice(Math.max(second - 1, 0), second + 1);
  const rows = both.filter((step) => 'addRow' in step);
  if (rows.length < 2) return null;
  return {
    common: whole.slice(0, second - 1),
    rows,
    repeat: (search, common, _isLast, [a, b] = rows) => {
      const driver = search.rowsDrivers.find(({ name }) => name === a!.addRow);
      const play = (...steps: HeldStep[]) => search.play(opening, [...common, ...steps]);
      if (driver !== undefined) exchanged(search, driver, a!, b!, play);
    },
  };
}

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
  'gone-leaves',
  'removed-row',
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
