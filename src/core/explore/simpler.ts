/** Sessions made simpler: how they are opened, the values that are entered, the cells of rows. */
import { nothingLaunched } from '../form/launch';
import { equal, type Value, type Values } from '../form/value';
import type { Opening } from '../session/step';
import { isValid } from './drivers';
import type { Ground } from './ground';
import { definitionOf } from './part-names';
import type { HeldStep } from './play';

export type AddedRow = Extract<HeldStep, { addRow: string }>;

/** Simple values, tried in place of others in this order. */
const SIMPLE: readonly Value[] = [true, 1, 3, 'Quay 4'];

/** Ways to open more simply than this, in one respect each: a new form for its first person, with nothing given. */
export function simplerOpenings(
  { record, parent, viewing, zone, services, launch, person }: Opening,
  /** Somebody answers calls, which are open only where services wait for that. */
  isByHand: boolean,
  { form, people }: Ground,
): ((opening: Opening) => Opening)[] {
  const nothing = nothingLaunched(form);
  const [first] = people;
  const all: ((opening: Opening) => Opening)[] = [];
  if (record !== null) all.push((opening) => ({ ...opening, record: null }));
  if (parent != null) all.push(({ parent: _parent, ...opening }) => opening);
  if (viewing === true) all.push(({ viewing: _viewing, ...opening }) => opening);
  if (zone !== undefined) all.push(({ zone: _zone, ...opening }) => opening);
  if (services !== undefined && !isByHand)
    all.push(({ services: _services, ...opening }) => opening);
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

/** The steps with fewer cells and simpler values, of which the same still `holds`. */
export function simplerSteps(
  steps: readonly HeldStep[],
  ground: Ground,
  holds: (steps: readonly HeldStep[]) => boolean,
): readonly HeldStep[] {
  let now = steps;
  for (const [i, step] of steps.entries()) {
    const isEnough = (other: HeldStep) => holds(now.with(i, other));
    now = now.with(
      i,
      'addRow' in step ? withFewerCells(step, isEnough) : simpler(step, ground, isEnough),
    );
  }
  return now;
}

/** The row without the cells that are not needed. */
export function withFewerCells(row: AddedRow, holds: (row: AddedRow) => boolean): AddedRow {
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
