/** The shortest way to a finding: the steps that both its sessions share, then values, made smaller while it is still found. */
import { equal, isEmpty, type Value } from '../form/value';
import { isValid } from './drivers';
import { Exploration } from './exploration';
import { keyOf, type Finding, type Way } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { minimized } from './minimized';
import type { Moments } from './moments';
import { definitionOf } from './part-names';
import { withoutWaits, type HeldStep } from './play';
import { atLoad } from './relations/at-load';
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
  moments: Moments,
): Finding {
  const again = repeatOf(finding);
  if (again === null) return finding;
  let left = SESSIONS;
  let last: Finding | null = null;
  const still = (common: readonly HeldStep[]): boolean => {
    if (left-- <= 0) return false;
    const search = new Exploration(ground, mentions, stage, 1, () => undefined, moments);
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
  if (!equal(way.opening as never, other.opening as never) || !SAME_END.has(kind)) return null;
  const theirs = bare(other);
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

/** The relations that compare two ends and nothing else. */
const SAME_END: ReadonlySet<Finding['kind']> = new Set([
  'not-back',
  'over-another',
  'order',
  'gone-leaves',
  'removed-row',
  'row-touches-row',
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
