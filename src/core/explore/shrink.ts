/** The shortest way to a finding: the steps that both its sessions share, then values, made smaller while it is still found. */
import { equal, type Value } from '../form/value';
import { isValid } from './drivers';
import { Exploration } from './exploration';
import { keyOf, type Finding } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { minimized } from './minimized';
import type { Checkpoints } from './checkpoints';
import { definitionOf } from './part-names';
import type { HeldStep } from './play';
import { repeatOf } from './repeat';

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
  const still = (common: readonly HeldStep[], isLast = false): boolean => {
    if (left-- <= 0) return false;
    const search = new Exploration(ground, mentions, stage, 1, () => undefined, checkpoints);
    again.repeat(search, common, isLast);
    const found = search.findings.find(
      (one) => keyOf(one) === keyOf(finding) && one.level === finding.level,
    );
    if (found !== undefined) last = found;
    return found !== undefined;
  };
  if (!still(again.common)) return finding;
  let common = minimized(again.common, (some) => still(some));
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
  return still(common, true) && last !== null
    ? { ...(last as Finding), lines: finding.lines, also: finding.also }
    : finding;
}
