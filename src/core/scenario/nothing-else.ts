/**
 * What changed besides what an expectation names: the other half of a test, since a behaviour that does what it should
 * and something more is wrong too. What follows from what people entered is left out: the values they set, rows they
 * added, removed or moved.
 */
import { cellsOf, fieldsOf } from '../form/fields';
import type { Form } from '../form/definition';
import { equal, type Value } from '../form/value';
import { readRowAddress } from '../session/address';
import type { Step } from '../session/step';
import { ASPECTS, spelled, type ExpectedAspect } from './aspects';
import type { Expectation, PartExpectation } from './definition';
import { cellState, type Seen } from './seen';

export interface Change {
  part: string;
  aspect: ExpectedAspect | 'count';
  before: Value;
  now: Value;
}

/** What differs between two moments of a session, but for what the steps between entered. */
export function changesBetween(
  form: Form,
  before: Seen,
  now: Seen,
  steps: readonly Step[],
): Change[] {
  const entered = new Set<string>();
  const movedRows = new Set<string>();
  for (const step of steps) {
    if ('set' in step) entered.add(step.set);
    if ('input' in step) entered.add(step.input);
    if ('fromChild' in step) entered.add(step.fromChild);
    if ('addRow' in step) movedRows.add(step.addRow);
    if ('removeRow' in step || 'moveRow' in step) {
      const address = readRowAddress('removeRow' in step ? step.removeRow : step.moveRow);
      if (address !== null) movedRows.add(address.rows);
    }
  }
  const changes: Change[] = [];
  for (const part of Object.keys(now.parts)) {
    const [was, is] = [before.parts[part], now.parts[part]!];
    if (was === undefined || was === is) continue;
    for (const aspect of ASPECTS) {
      // What a rows field holds is looked at row by row.
      if (aspect === 'value' && (entered.has(part) || now.rows[part] !== undefined)) continue;
      const [from, to] = [spelled(was, aspect), spelled(is, aspect)];
      if (to !== undefined && !equal(from, to))
        changes.push({ part, aspect, before: from ?? null, now: to });
    }
  }
  for (const field of fieldsOf(form)) {
    const [was, is] = [before.rows[field.name], now.rows[field.name]];
    if (was === undefined || is === undefined || was === is) continue;
    if (was.order.length !== is.order.length && !movedRows.has(field.name))
      changes.push({
        part: field.name,
        aspect: 'count',
        before: was.order.length,
        now: is.order.length,
      });
    is.order.forEach((id, place) => {
      const [oldRow, row] = [was.byId[id], is.byId[id]!];
      if (oldRow === undefined || oldRow === row) return;
      for (const cell of cellsOf(field)) {
        const address = `${field.name}[${place}].${cell.name}`;
        const [old, state] = [
          cellState(before.parts[field.name]!, oldRow, cell),
          cellState(now.parts[field.name]!, row, cell),
        ];
        for (const aspect of ASPECTS) {
          if (aspect === 'value' && entered.has(address)) continue;
          const [from, to] = [spelled(old, aspect), spelled(state, aspect)];
          if (to !== undefined && !equal(from, to))
            changes.push({ part: address, aspect, before: from ?? null, now: to });
        }
      }
    });
  }
  return changes;
}

/** Whether an expectation says something of a change. */
export function names(expect: Expectation, { part, aspect }: Change): boolean {
  const wanted = expect[part] as PartExpectation | undefined;
  if (wanted !== undefined && aspect in wanted) return true;
  // A cell may be named with its row.
  const cell = readRowAddress(part);
  if (cell?.cell == null || aspect !== 'value') return false;
  const row = expect[`${cell.rows}[${cell.place}]`] as PartExpectation | undefined;
  return row?.cells !== undefined && cell.cell in row.cells;
}

/** What is looked at of the form as a whole, by the name that an expectation has for it. */
export const WHOLE = {
  '@page': (seen: Seen) => seen.page,
  '@replaced': (seen: Seen) => seen.replaced?.text ?? null,
  '@notice': (seen: Seen) => seen.notice?.text ?? null,
} as const satisfies Record<string, (seen: Seen) => Value>;
