/**
 * Everything that stands at one moment, be it in the middle of a run: the parts as people see them, who says what of
 * each aspect, and what would be submitted. Unlike `telling.ts` it tells all and notes nothing as told.
 */
import { equal, type Value, type Values } from '../form/value';
import type { Line } from '../wire/line';
import type { Aspect } from './aspects';
import { submittedValues } from './submitted-values';
import type { Part } from './parts';
import type { Row } from './rows';
import type { State } from './state';
import type { CellState, PartState, RowState } from './step';
import { forTape } from './tape-writer';
import { cellNow, partNow } from './telling';

/** What stands of an aspect: what the definition says, above it a handler's word, above that those of rules. */
export interface Layers {
  base: Value;
  handler: Value | undefined;
  /** In their order; the last one shows. */
  rules: { behaviour: string; title: string; line: Line; value: Value }[];
}

export interface Look {
  parts: Record<string, PartState>;
  rows: Record<string, { order: string[]; byId: Record<string, RowState> }>;
  page: string | null;
  clock: number;
  /** By part and aspect, where anything was said. */
  layers: Record<string, Record<string, Layers>>;
  /** The values as opened or saved, where they differ from what stands. */
  initial: Values;
  /** What would be submitted, and the fields that would be left out. */
  outgoing: { values: Values; without: string[] };
}

export function lookAt(state: State, page: string | null, clock: number): Look {
  const look: Look = {
    parts: {},
    rows: {},
    page,
    clock,
    layers: {},
    initial: {},
    outgoing: submittedValues(state),
  };
  for (const part of state.parts.byName.values()) {
    if (part.sort !== 'form') look.parts[part.name] = partNow(state, part);
    addLayers(look, part, part.name);
    if (part.rows === null) continue;
    const { list } = part.rows;
    look.rows[part.name] = {
      order: list.map(({ id }) => id),
      byId: Object.fromEntries(list.map((row) => [row.id, rowNow(state, row)])),
    };
    for (const row of list) {
      addLayers(look, row.part, row.part.name);
      for (const cell of row.cells.values()) addLayers(look, cell, cell.name);
    }
  }
  for (const part of state.parts.fields) {
    const initial = state.initialOf(part);
    if (!equal(initial, part.value)) look.initial[part.name] = initial;
  }
  return look;
}

function rowNow(state: State, row: Row): RowState {
  const { part } = row;
  const said = (name: 'warning' | 'problem') =>
    part.now(name) === null ? {} : { [name]: part.now(name) };
  const cells: Record<string, CellState> = {};
  for (const [name, cell] of row.cells) {
    const differs = cellNow(state, cell, row);
    if (Object.keys(differs).length > 0) cells[name] = differs;
  }
  return {
    shown: part.now('shown') as boolean,
    locked: part.now('locked') as boolean,
    ...said('warning'),
    ...said('problem'),
    values: { ...row.values },
    cells,
  };
}

function addLayers(look: Look, part: Part, name: string): void {
  for (const aspect of Object.values(part.aspects) as Aspect[]) {
    if (aspect.derive !== null) continue;
    const { handlerClaim, ruleClaims } = aspect;
    if (handlerClaim === null && ruleClaims.length === 0) continue;
    (look.layers[name] ??= {})[aspect.name] = {
      base: forTape(aspect.base),
      handler: handlerClaim === null ? undefined : forTape(handlerClaim.value),
      rules: ruleClaims.map(({ rule, value, line }) => ({
        behaviour: rule.behaviour.name,
        title: rule.title,
        line,
        value: forTape(value),
      })),
    };
  }
}
