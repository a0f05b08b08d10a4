/** What the outside is told after a step: of each part touched, the aspects that differ from what was told before. */
import type { Option } from '../form/definition';
import { equal } from '../form/value';
import { NOTHING_TOLD, type Part } from './parts';
import type { Row, Rows } from './rows';
import type { State } from './state';
import type { Answer, CellState, PartState, RowsChange, RowState } from './step';

/** The differences since the last call. */
export function tell(state: State): Pick<Answer, 'changes' | 'rows'> {
  const changes: Answer['changes'] = {};
  const rows: Answer['rows'] = {};
  const rowsOf = (field: Part): RowsChange => (rows[field.name] ??= { rows: {} });
  for (const part of state.touched) {
    if (part.sort === 'form') continue;
    const { row } = part;
    if (row === null) {
      const difference = differenceOf(state, part);
      if (difference !== null) changes[part.name] = difference;
      if (part.rows !== null) tellOrder(part.rows, rowsOf);
    } else if (!row.removed) tellRow(state, part, row, rowsOf);
  }
  state.touched.clear();
  return { changes, rows };
}

/** Collects what differs from what was told, and notes it as told. */
function teller(told: Record<string, unknown>): { tell: (name: string, now: unknown) => void; difference: () => Record<string, unknown> | null } {
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
  if (part.told === NOTHING_TOLD) part.told = {};
  return part.told as Record<string, unknown>;
}

function differenceOf(state: State, part: Part): Partial<PartState> | null {
  const { sort, onScreen } = part;
  const told = toldOf(part);
  const { tell, difference } = teller(told);
  if (told.sort === undefined) tell('sort', sort);
  tell('shown', part.now('shown'));
  tell('onScreen', onScreen);
  if (sort === 'track') {
    tell('stage', part.now('stage'));
    return difference();
  }
  tell('locked', part.now('locked'));
  tell('editable', part.editable);
  if (sort === 'button') tell('label', part.now('label'));
  if (sort !== 'field') return difference();
  if (part.rows === null) tell('value', part.value);
  tell('required', part.now('required'));
  tell('options', part.now('options') as readonly Option[] | null);
  tell('hint', part.now('hint'));
  tell('warning', part.now('warning'));
  tell('problem', onScreen ? part.now('problem') : null);
  tell('fault', onScreen ? (state.faults.get(part)?.says ?? null) : null);
  tell('orphan', state.orphans.has(part));
  tell('stray', state.strays.get(part) ?? null);
  return difference();
}

function tellOrder(rows: Rows, rowsOf: (field: Part) => RowsChange): void {
  if (rows.toldOrder === rows.list) return;
  rows.toldOrder = rows.list;
  rowsOf(rows.field).order = rows.list.map((row) => row.id);
}

function tellRow(state: State, part: Part, row: Row, rowsOf: (field: Part) => RowsChange): void {
  const change = (): Partial<RowState> => (rowsOf(row.rows.field).rows[row.id] ??= {});
  const { told } = row;
  if (told.values !== row.values) {
    const before = told.values;
    told.values = row.values;
    change().values = before === null ? { ...row.values } : Object.fromEntries(Object.entries(row.values).filter(([name, value]) => !equal(value, before[name])));
  }
  if (part.sort === 'row') {
    const { tell, difference } = teller(told.state as Record<string, unknown>);
    tell('shown', part.now('shown'));
    tell('locked', part.now('locked'));
    for (const name of ['warning', 'problem'] as const) if (part.now(name) !== null || name in told.state) tell(name, part.now(name));
    Object.assign(change(), difference() ?? {});
    return;
  }
  const cell = cellDifference(state, part, row);
  if (cell !== null) (change().cells ??= {})[part.field.name] = cell;
}

/** What is told of a cell, in this order. */
const OF_CELL = Object.keys({ shown: 0, locked: 0, required: 0, options: 0, hint: 0, warning: 0, problem: 0, fault: 0, orphan: 0 } satisfies Record<keyof CellState, 0>) as (keyof CellState)[];

/** Of a cell only what differs from its definition is ever told. */
function cellDifference(state: State, part: Part, row: Row): CellState | null {
  const { bases } = row.rows.columns.get(part.field.name)!;
  let difference: Record<string, unknown> | null = null;
  for (const name of OF_CELL) {
    const ofForm = name === 'fault' || name === 'orphan';
    const now = name === 'fault' ? (state.faults.get(part)?.says ?? null) : name === 'orphan' ? state.orphans.has(part) : part.now(name);
    const told = (part.told as Record<string, unknown>)[name];
    if (told === now || equal(told, now)) continue;
    if (told === undefined && equal(now, ofForm ? (name === 'orphan' ? false : null) : bases[name])) continue;
    toldOf(part)[name] = now;
    (difference ??= {})[name] = now;
  }
  return difference as CellState | null;
}
