/** Checking fields at a submission or a turn of pages, and what a submission hands out. */
import { faultOf } from '../form/kinds';
import type { Part } from './parts';
import type { State } from './state';

export interface Found {
  /** The part as steps name it, such as `cargo[0].weight`. */
  part: string;
  says: string;
}

/** What is wrong with a field as it stands: a broken constraint, else a problem a script set; nothing off screen. */
export function wrongWith(state: State, part: Part): string | null {
  if (!part.onScreen) return null;
  const kept =
    state.orphans.has(part) || state.strays.has(part)
      ? null
      : faultOf(part.value, part.field, part.now('required') === true, state.fits);
  return kept?.says ?? (part.now('problem') as string | null);
}

/** Checks the fields on screen, of one page or of all, and marks those with a fault. */
export function check(state: State, page: Part | null): Found[] {
  const found: Found[] = [];
  const look = (part: Part) => {
    const says = wrongWith(state, part);
    if (says === null) return;
    if (part.now('problem') === null) setFault(state, part, says, null);
    found.push({ part: part.address, says });
  };
  for (const part of state.parts.fields) {
    if (page !== null && part.parent!.parent !== page) continue;
    look(part);
    if (part.rows !== null && part.onScreen)
      checkRows(state, part, look, (row, says) => found.push({ part: row.address, says }));
  }
  return found;
}

/** Cells that nobody has touched are checked by their definition, and become parts only when something is wrong. */
function checkRows(
  state: State,
  part: Part,
  look: (part: Part) => void,
  ofRow: (row: Part, problem: string) => void,
): void {
  const rows = part.rows!;
  for (const row of rows.list) {
    if (!row.part.onScreen) continue;
    const problem = row.part.now('problem');
    if (problem !== null) ofRow(row.part, problem as string);
    for (const [name, { field, bases }] of rows.columns) {
      const cell = row.cells.get(name);
      if (cell !== undefined) look(cell);
      else if (
        bases.shown === true &&
        faultOf(row.values[name]!, field, bases.required === true, state.fits) !== null
      )
        look(rows.cell(row, name));
    }
  }
}

/** Marks a field; `readsOf` is what the handler had read that stopped there, null for what a check found. */
export function setFault(
  state: State,
  part: Part,
  says: string,
  readsOf: ReadonlySet<Part> | null,
): void {
  state.faults.set(part, { says, readsOf });
  state.outdated.parts.add(part);
}

/** The field that was mended loses its fault; others keep theirs until the next check. */
export function dropMended(state: State): void {
  for (const [part, { readsOf }] of state.faults) {
    if (readsOf === null && state.outdated.parts.has(part) && wrongWith(state, part) === null)
      state.faults.delete(part);
  }
}
