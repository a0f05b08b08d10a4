/** The shortest way to a finding: the steps that both its sessions share, then values, made smaller while it is still found. */
import { equal, type Value, type Values } from '../form/value';
import { isValid } from './drivers';
import { Exploration } from './exploration';
import type { Finding } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { minimized } from './minimized';
import type { Checkpoints } from './checkpoints';
import { definitionOf } from './part-names';
import type { HeldStep } from './play';
import { repeatOf, type AddedRow } from './repeat';

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
  let { common, rows = [] } = again;
  const still = (some: readonly HeldStep[], added = rows, isLast = false): boolean => {
    // The last one has to be there, however many it took.
    if (left-- <= 0 && !isLast) return false;
    const search = new Exploration(ground, mentions, stage, 1, () => undefined, checkpoints);
    again.repeat(search, some, isLast, added);
    const found = search.foundAgain(finding);
    if (found !== null) last = found;
    return found !== null;
  };
  if (!still(common)) return finding;
  common = minimized(common, (some) => still(some));
  for (const [i, step] of common.entries()) {
    const instead = 'addRow' in step ? withFewerCells(step, at(i)) : simpler(step, ground, at(i));
    common = common.with(i, instead);
  }
  for (const [i, row] of rows.entries())
    rows = rows.with(
      i,
      withFewerCells(row, (fewer) => still(common, rows.with(i, fewer))),
    );
  return still(common, rows, true) && last !== null
    ? { ...(last as Finding), lines: finding.lines, also: finding.also }
    : finding;

  /** Whether it is found with another step in this place. */
  function at(i: number): (step: HeldStep) => boolean {
    return (step) => still(common.with(i, step));
  }
}

/** The row without the cells that are not needed. */
function withFewerCells(row: AddedRow, holds: (row: AddedRow) => boolean): AddedRow {
  let now = row;
  for (const cell of Object.keys(row.with ?? {})) {
    const { [cell]: _left, ...cells } = now.with as Values;
    if (holds({ ...now, with: cells })) now = { ...now, with: cells };
  }
  return now;
}

/** The step with the first simple value that does as well. */
function simpler(step: HeldStep, { form }: Ground, holds: (step: HeldStep) => boolean): HeldStep {
  const field = 'set' in step ? definitionOf(form, step.set) : undefined;
  if (!('set' in step) || field === undefined) return step;
  const isSimpler = (to: Value) =>
    typeof to === typeof step.to && isValid(field, to) && !equal(step.to, to);
  const to = SIMPLE.find((value) => isSimpler(value) && holds({ ...step, to: value }));
  return to === undefined ? step : { ...step, to };
}
