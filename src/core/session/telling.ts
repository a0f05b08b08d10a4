/** Reports what a step changed: of each part that was touched, the aspects that differ from the last report. */
import { equal } from '../form/value';
import type { Part } from './parts';
import type { Row, Rows } from './rows';
import type { State } from './state';
import { isToldName, saidOf, type ToldName } from '../wire/aspects';
import type { Answer, CellState, PartSort, PartState, RowsChange, RowState } from './step';

/** The differences since the last call. */
export function tell(state: State): Pick<Answer, 'changes' | 'rows'> {
  const changes: Answer['changes'] = {};
  const rows: Answer['rows'] = {};
  const rowsOf = (field: Part): RowsChange => (rows[field.name] ??= { rows: {} });
  for (const part of state.outdated.parts) {
    if (part.sort === 'form') continue;
    const { row } = part;
    if (row === null) {
      const difference = differenceOf(state, part);
      if (difference !== null) changes[part.name] = difference;
      if (part.rows !== null) tellOrder(part.rows, rowsOf);
    } else if (!row.removed) tellRow(state, part, row, rowsOf);
  }
  state.outdated.parts.clear();
  return { changes, rows };
}

/** Collects what differs from what was reported, and notes it as reported. */
function teller(told: Record<string, unknown>): {
  tell: (name: string, now: unknown) => void;
  difference: () => Record<string, unknown> | null;
} {
  let difference: Record<string, unknown> | null = null;
  return {
    tell(name, now) {
      if (told[name] === now) return;
      // Lists that read the same are the same.
      if (typeof now === 'object' && now !== null && equal(now, told[name])) return;
      told[name] = now;
      (difference ??= {})[name] = now;
    },
    difference: () => difference,
  };
}

function toldOf(part: Part): Record<string, unknown> {
  // A checkpoint freezes what it keeps.
  if (Object.isFrozen(part.told)) part.told = { ...part.told };
  return part.told as Record<string, unknown>;
}

type Told = Exclude<keyof PartState, 'sort'>;
type Following = Exclude<Told, ToldName>;

/** What follows for a part from what was said, from what is around it, or from a check. */
const FOLLOWING: Readonly<Record<Following, (state: State, part: Part) => unknown>> = {
  onScreen: (_, part) => part.onScreen,
  editable: (_, part) => part.editable,
  fault: (state, part) => (part.onScreen ? (state.faults.get(part)?.says ?? null) : null),
  orphan: (state, part) => state.orphans.has(part),
  stray: (state, part) => state.strays.get(part) ?? null,
};

function nowOf(state: State, part: Part, name: Told): unknown {
  if (Object.hasOwn(FOLLOWING, name)) return FOLLOWING[name as Following](state, part);
  // Of a rows field it is reported with the rows.
  if (name === 'value') return part.rows === null ? part.value : undefined;
  return name === 'problem' && !part.onScreen ? null : part.now(name as ToldName);
}

const NESTED: readonly Told[] = ['shown', 'onScreen', 'locked', 'editable'];

/** The aspects that are reported of a sort of part, in this order. */
function toldOfSort(sort: Exclude<PartSort, 'form' | 'row'>): readonly Told[] {
  const said = saidOf(sort).filter(isToldName);
  return [
    // A track is never locked.
    ...NESTED.filter((name) => sort !== 'track' || name === 'shown' || name === 'onScreen'),
    ...said.filter((name) => !NESTED.includes(name)),
    ...(sort === 'field' ? (['fault', 'orphan', 'stray'] as const) : []),
  ];
}

const TOLD = Object.fromEntries(
  (['page', 'section', 'track', 'button', 'field'] as const).map((sort) => [
    sort,
    toldOfSort(sort),
  ]),
) as Readonly<Record<Exclude<PartSort, 'form' | 'row'>, readonly Told[]>>;

function differenceOf(state: State, part: Part): Partial<PartState> | null {
  const { sort } = part;
  const told = toldOf(part);
  const { tell, difference } = teller(told);
  if (told.sort === undefined) tell('sort', sort);
  for (const name of TOLD[sort as keyof typeof TOLD]) tell(name, nowOf(state, part, name));
  return difference();
}

/** All that can be reported of a part now. */
export function partNow(state: State, part: Part): PartState {
  const { sort } = part;
  const now: Record<string, unknown> = { sort };
  for (const name of TOLD[sort as keyof typeof TOLD]) {
    const value = nowOf(state, part, name);
    if (value !== undefined) now[name] = value;
  }
  return now as unknown as PartState;
}

function tellOrder(rows: Rows, rowsOf: (field: Part) => RowsChange): void {
  if (rows.toldOrder === rows.list) return;
  rows.toldOrder = rows.list;
  const change = rowsOf(rows.field);
  change.order = rows.list.map((row) => row.id);
  if (rows.anew) change.anew = true;
  rows.anew = false;
}

function tellRow(state: State, part: Part, row: Row, rowsOf: (field: Part) => RowsChange): void {
  const change = (): Partial<RowState> => (rowsOf(row.rows.field).rows[row.id] ??= {});
  const { told } = row;
  if (told.values !== row.values) {
    const before = told.values;
    told.values = row.values;
    change().values =
      before === null
        ? { ...row.values }
        : Object.fromEntries(
            Object.entries(row.values).filter(([name, value]) => !equal(value, before[name])),
          );
  }
  if (part.sort === 'row') {
    const { tell, difference } = teller(told.state as Record<string, unknown>);
    tell('shown', part.now('shown'));
    tell('locked', part.now('locked'));
    for (const name of ['warning', 'problem'] as const)
      if (part.now(name) !== null || name in told.state) tell(name, part.now(name));
    Object.assign(change(), difference() ?? {});
    return;
  }
  const cell = cellDifference(state, part, row);
  if (cell !== null) (change().cells ??= {})[part.field.name] = cell;
}

/** What is reported of a cell, in this order. Its value is reported with the row, and where it is follows from the row too. */
const OF_CELL = TOLD.field.filter(
  (name) => !['value', 'onScreen', 'editable', 'stray'].includes(name),
) as readonly (keyof CellState)[];

function cellAspect(state: State, part: Part, name: keyof CellState): unknown {
  if (name === 'fault') return state.faults.get(part)?.says ?? null;
  return name === 'orphan' ? state.orphans.has(part) : part.now(name);
}

/** What its definition says of a cell; a fault and an orphan are the form's to find. */
function cellBase(part: Part, row: Row, name: keyof CellState): unknown {
  if (name === 'fault') return null;
  return name === 'orphan' ? false : row.rows.columns.get(part.field.name)!.bases[name];
}

/** What differs of a cell from its definition now. */
export function cellNow(state: State, part: Part, row: Row): CellState {
  const differs: Record<string, unknown> = {};
  for (const name of OF_CELL) {
    const now = cellAspect(state, part, name);
    if (!equal(now, cellBase(part, row, name))) differs[name] = now;
  }
  return differs as CellState;
}

/** Of a cell only what differs from its definition is ever told. */
function cellDifference(state: State, part: Part, row: Row): CellState | null {
  let difference: Record<string, unknown> | null = null;
  for (const name of OF_CELL) {
    const now = cellAspect(state, part, name);
    const told = (part.told as Record<string, unknown>)[name];
    if (told === now || equal(told, now)) continue;
    if (told === undefined && equal(now, cellBase(part, row, name))) continue;
    toldOf(part)[name] = now;
    (difference ??= {})[name] = now;
  }
  return difference as CellState | null;
}
