/** The shortest way to a finding: the steps that both its sessions share, then values, made smaller while it is still found. */
import { equal, isEmpty, type Value } from '../form/value';
import { isValid } from './drivers';
import { Exploration } from './exploration';
import { keyOf, type Finding, type Way } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { minimized } from './minimized';
import type { Checkpoints } from './checkpoints';
import { definitionOf } from './part-names';
import { withoutWaits, type HeldStep } from './play';
import { atLoad } from './relations/at-load';
import { zones } from './relations/openings';
import { aroundPages } from './relations/pages';
import { sameEnd } from './relations/same-end';

/** Sessions that shortening one finding may take. */
const SESSIONS = 300;

/** Simple values, tried in place of others in this order. */
const SIMPLE: readonly Value[] = [true, 1, 3, 'Quay 4'];

export function shrunk(
  finding: Finding,
  ground: Ground,
  mentions: Mentions,
  stage: Stage,
  checkpoints: Checkpoints,
): Finding {
  const again = repeatOf(finding);
  if (again === null) return finding;
  let left = SESSIONS;
  let last: Finding | null = null;
  const still = (common: readonly HeldStep[]): boolean => {
    if (left-- <= 0) return false;
    const search = new Exploration(ground, mentions, stage, 1, () => undefined, checkpoints);
    again.repeat(search, common);
    const found = search.findings.find(
      (one) => keyOf(one) === keyOf(finding) && one.level === finding.level,
    );
    if (found !== undefined) last = found;
    return found !== undefined;
  };
  if (!still(again.common)) return finding;
  let common = minimized(again.common, still);
  common.forEach((step, i) => {
    if (!('set' in step)) return;
    const field = definitionOf(ground.form, step.set);
    for (const to of SIMPLE) {
      if (field === undefined || typeof to !== typeof step.to) continue;
      if (!isValid(field, to) || equal(step.to, to)) continue;
      const simpler = common.with(i, { ...step, to });
      if (!still(simpler)) continue;
      common = simpler;
      break;
    }
  });
  return still(common) && last !== null
    ? { ...(last as Finding), lines: finding.lines, also: finding.also }
    : finding;
}

/** How a finding is found again from the steps that its sessions share. */
interface Repeat {
  common: readonly HeldStep[];
  repeat(search: Exploration, common: readonly HeldStep[]): void;
}

export function repeatOf({ kind, way, other }: Finding): Repeat | null {
  const steps = bare(way);
  if (kind === 'dead-end') return null;
  if (other === null)
    return {
      common: steps,
      repeat: (search, common) => void search.play(way.opening, common),
    };
  if (kind === 'at-load')
    return {
      common: steps,
      repeat: (search, common) => atLoad(search, search.play(way.opening, common)),
    };
  if (kind === 'zone') {
    const opening = { ...other.opening, zone: undefined };
    return { common: steps, repeat: (search, common) => zones(search, opening, common) };
  }
  if (!equal(way.opening as never, other.opening as never) || !SAME_END.has(kind)) return null;
  const theirs = bare(other);
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
  let shared = 0;
  while (shared < Math.min(steps.length, theirs.length) && equal(steps[shared], theirs[shared]))
    shared++;
  const [tail, otherTail] = [steps.slice(shared), theirs.slice(shared)];
  return {
    common: steps.slice(0, shared),
    repeat: (search, common) =>
      sameEnd(
        search,
        kind,
        search.play(way.opening, [...common, ...tail]),
        search.play(way.opening, [...common, ...otherTail]),
        tail.length === 0 ? 'untouched' : inShort(tail),
      ),
  };
}

/** What a step does, whatever value it enters. */
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

/** Sessions whose calls are answered by hand keep their steps as they are. */
function bare({ steps }: Way): HeldStep[] {
  return steps.some((step) => 'answer' in step) ? [...steps] : withoutWaits(steps);
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
