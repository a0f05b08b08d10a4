/** More time for sessions with many rows, whose rules run once for each: for the machine's own limit and for its watchdog. */
import type { Opening, TimedStep } from '../session/step';

/** Real milliseconds more that each row may take, since rules for each row run once for each. */
const PER_ROW = 3;

/** How many rows come with an opening or a step, for the time they may take. */
export function rowsIn(come: Opening | TimedStep): number {
  if ('addRow' in come) return Array.isArray(come.with) ? come.with.length : 1;
  if (!('person' in come)) return 0;
  return Object.values(come.record?.values ?? {}).reduce<number>((rows, value) => rows + (Array.isArray(value) ? value.length : 0), 0);
}

/** Real milliseconds more that a session with so many rows may take for one call. */
export function allowanceFor(rows: number): number {
  return rows * PER_ROW;
}
