/**
 * The shortest way to a finding: how its sessions are opened, then the steps that both share, then values, made simpler while
 * it is still found.
 */
import { nothingLaunched } from '../form/launch';
import { equal, type Value, type Values } from '../form/value';
import type { Opening } from '../session/step';
import { isValid } from './drivers';
import { Exploration } from './exploration';
import type { Finding } from './finding';
import type { Ground, Stage } from './ground';
import type { Mentions } from './mentions';
import { minimized } from './minimized';
import type { Checkpoints } from './checkpoints';
import { definitionOf } from './part-names';
import type { HeldStep } from './play';
import { repeatOf, type AddedRow, type Repeat } from './repeat';

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
  for (const simplified of simplerOpenings(finding.way.opening, ground)) {
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
    return (step) => still(common.with(i, step), rows);
  }
}

function openedAs(finding: Finding, opened: (opening: Opening) => Opening): Finding {
  const { way, other } = finding;
  const theirs = other === null ? null : { ...other, opening: opened(other.opening) };
  return { ...finding, way: { ...way, opening: opened(way.opening) }, other: theirs };
}

/** Ways to open more simply than this, in one respect each: a new form for its first person, with nothing given. */
function simplerOpenings(
  { record, parent, viewing, zone, services, launch, person }: Opening,
  { form, people }: Ground,
): ((opening: Opening) => Opening)[] {
  const nothing = nothingLaunched(form);
  const [first] = people;
  const all: ((opening: Opening) => Opening)[] = [];
  if (record !== null) all.push((opening) => ({ ...opening, record: null }));
  if (parent != null) all.push(({ parent: _parent, ...opening }) => opening);
  if (viewing === true) all.push(({ viewing: _viewing, ...opening }) => opening);
  if (zone !== undefined) all.push(({ zone: _zone, ...opening }) => opening);
  if (services !== undefined) all.push(({ services: _services, ...opening }) => opening);
  for (const name of Object.keys(launch))
    if (launch[name] !== null)
      all.push((opening) => {
        const { [name]: _given, ...others } = opening.launch;
        return { ...opening, launch: { ...nothing, ...others } };
      });
  if (first !== undefined && person.key !== first.key)
    all.push((opening) => ({ ...opening, person: first }));
  return all;
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
