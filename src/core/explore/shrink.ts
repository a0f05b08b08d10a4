/**
 * The shortest way to a finding: how its sessions are opened, then the steps that both share, then values, made simpler while
 * it is still found.
 */
import type { Opening } from '../session/step';
import { Exploration } from './exploration';
import { isAnsweredByHand, type Finding } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { minimized } from './minimized';
import type { Checkpoints } from './checkpoints';
import { repeatOf, type Repeat } from './repeat';
import { simplerOpenings, simplerSteps, withFewerCells } from './simpler';

/** Sessions that shortening one finding may take. */
const SESSIONS = 300;

export function shrunk(
  finding: Finding,
  ground: Ground,
  mentions: Mentions,
  stage: Stage,
  checkpoints: Checkpoints,
): Finding {
  const asFound = repeatOf(finding);
  if (asFound === null) return finding;
  let again: Repeat = asFound;
  let left = SESSIONS;
  let last: Finding | null = null;
  const still = (common = again.common, rows = again.rows, isLast = false): boolean => {
    // The last one has to be there, however many it took.
    if (left-- <= 0 && !isLast) return false;
    const search = new Exploration(ground, mentions, stage, 1, () => undefined, checkpoints);
    again.repeat(search, common, isLast, rows);
    const found = search.foundAgain(finding);
    if (found !== null) last = found;
    return found !== null;
  };
  if (!still()) return finding;
  let subject = finding;
  const isByHand = isAnsweredByHand(finding);
  for (const simplified of simplerOpenings(finding.way.opening, isByHand, ground)) {
    const simpler = openedAs(subject, simplified);
    const repeat = repeatOf(simpler);
    if (repeat === null) continue;
    const before: Repeat = again;
    again = repeat;
    if (still()) subject = simpler;
    else again = before;
  }
  let { common, rows = [] } = again;
  common = minimized(common, (some) => still(some, rows));
  common = simplerSteps(common, ground, (some) => still(some, rows));
  for (const [i, row] of rows.entries())
    rows = rows.with(
      i,
      withFewerCells(row, (fewer) => still(common, rows.with(i, fewer))),
    );
  return still(common, rows, true) && last !== null
    ? { ...(last as Finding), lines: finding.lines, also: finding.also }
    : finding;
}

function openedAs(finding: Finding, opened: (opening: Opening) => Opening): Finding {
  const { way, other } = finding;
  const theirs = other === null ? null : { ...other, opening: opened(other.opening) };
  return { ...finding, way: { ...way, opening: opened(way.opening) }, other: theirs };
}
