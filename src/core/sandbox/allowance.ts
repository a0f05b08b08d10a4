/** More time for sessions with many rows, whose rules run once for each: for the machine's own limit and for its watchdog. */
import type { Table } from '../form/table';
import type { Opening, TimedStep } from '../session/step';

/** Real milliseconds more that each row may take, since rules for each row run once for each. */
const PER_ROW = 3;

/** How many rows come with an opening or a step, for the time they may take. */
export function rowsIn(come: Opening | TimedStep): number {
  if ('addRow' in come) return Array.isArray(come.with) ? come.with.length : 1;
  if (!('person' in come)) return 0;
  return Object.values(come.record?.values ?? {}).reduce<number>(
    (rows, value) => rows + (Array.isArray(value) ? value.length : 0),
    0,
  );
}

/** Real milliseconds more that a session with so many rows may take for one call. */
export function allowanceFor(rows: number): number {
  return rows * PER_ROW;
}

/** Real milliseconds more for each cell of the tables, which are read and frozen before the first script is loaded. */
const PER_TABLE_CELL = 0.008;

/** Real milliseconds more that loading may take with these tables. */
export function allowanceForTables(tables: readonly Table[]): number {
  return (
    tables.reduce((sum, { rows, columns }) => sum + rows.length * columns.length, 0) *
    PER_TABLE_CELL
  );
}
