/**
 * A session as seen from outside at one moment: the answers so far, added up. What a scenario compares, the live form
 * shows and `tavro play` prints.
 */
import { readRowAddress } from '../session/address';
import type { Failure } from '../wire/failures';
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import { isEmpty, type Value, type Values } from '../form/value';
import { entryOf, isToldName, saidOf } from '../wire/aspects';
import type {
  Broken,
  Answer,
  CellState,
  LogLine,
  Message,
  PartState,
  RowState,
  SubmitOutcome,
} from '../session/step';
import { emptyOf } from '../form/traits';

/** The rows of a field: ids in order, and each row by its id. */
export interface SeenRows {
  order: readonly string[];
  byId: Readonly<Record<string, RowState>>;
}

export interface Seen {
  parts: Record<string, PartState>;
  rows: Record<string, SeenRows>;
  record: string | null;
  clock: number;
  waiting: Answer['waiting'];
  page: string | null;
  replaced: Answer['replaced'];
  notice: Answer['notice'];
  failing: Failure[];
  /** Invariants that do not hold. */
  broken: readonly Broken[];
  submit: SubmitOutcome | null;
  changed: boolean;
}

/** A copy that inherits nothing: a part may be called `constructor`. */
const bare = <T>(from: Readonly<Record<string, T>>): Record<string, T> =>
  Object.assign(Object.create(null) as Record<string, T>, from);

export const NOTHING_SEEN: Seen = {
  parts: bare({}),
  rows: bare({}),
  record: null,
  clock: 0,
  waiting: [],
  page: null,
  replaced: null,
  notice: null,
  failing: [],
  broken: [],
  submit: null,
  changed: false,
};

/** What is seen after an answer; the former is left as it was. */
export function seenAfter(before: Seen, answer: Answer): Seen {
  let { parts } = before;
  const names = Object.keys(answer.changes);
  if (names.length > 0) {
    parts = bare(parts);
    for (const name of names)
      parts[name] = { ...parts[name], ...answer.changes[name] } as PartState;
  }
  const { record, clock, waiting, page, replaced, notice, failing, broken, changed } = answer;
  return {
    parts,
    rows: rowsAfter(before.rows, answer.rows),
    record,
    clock,
    waiting,
    page,
    replaced,
    notice,
    failing,
    broken,
    changed,
    submit: answer.submit ?? before.submit,
  };
}

function rowsAfter(before: Seen['rows'], changes: Answer['rows']): Seen['rows'] {
  const names = Object.keys(changes);
  if (names.length === 0) return before;
  const after = bare(before);
  for (const name of names) {
    const change = changes[name]!;
    const was = (change.anew ? null : before[name]) ?? { order: [], byId: {} };
    const byId: Record<string, RowState> = { ...was.byId };
    for (const [id, row] of Object.entries(change.rows)) byId[id] = rowAfter(byId[id], row);
    if (change.order !== undefined) {
      const here = new Set(change.order);
      for (const id of Object.keys(byId)) if (!here.has(id)) delete byId[id];
    }
    after[name] = { order: change.order ?? was.order, byId };
  }
  return after;
}

const NEW_ROW: RowState = { shown: true, locked: false, values: {}, cells: {} };

function rowAfter(before: RowState = NEW_ROW, change: Partial<RowState>): RowState {
  const cells = { ...before.cells };
  for (const [name, cell] of Object.entries(change.cells ?? {}))
    cells[name] = { ...cells[name], ...cell };
  return { ...before, ...change, values: { ...before.values, ...change.values }, cells };
}

type Cell = Required<Omit<PartState, 'label' | 'stage' | 'stray'>>;

const OF_CELL = saidOf('field').filter(isToldName);

/** A cell as a part of its own: what was said of it, else what its definition says, within its row and its field. */
export function cellState(field: PartState, row: RowState, cell: Field): Cell {
  const said = row.cells[cell.name] ?? {};
  const is = Object.fromEntries(
    OF_CELL.map((name) => [name, said[name as keyof CellState] ?? entryOf(name).base(cell)]),
  ) as unknown as Cell;
  return {
    ...is,
    sort: 'field',
    onScreen: is.shown && row.shown && field.onScreen,
    editable: !is.locked && cell.scriptOnly !== true && !row.locked && field.editable,
    value: row.values[cell.name] ?? emptyOf(cell),
    fault: said.fault ?? null,
    orphan: said.orphan ?? false,
  };
}

/** The part that an address names now, such as `draught`, `cargo[0]` or `cargo[0].weight`; undefined when there is none. */
export function partSeen(seen: Seen, form: Form, address: string): PartState | undefined {
  const found = readRowAddress(address);
  if (found === null) return seen.parts[address] && withRows(seen, address);
  const rows = seen.rows[found.rows];
  const row = rows?.byId[rows.order[found.place] ?? ''];
  const field = seen.parts[found.rows];
  if (row === undefined || field === undefined) return undefined;
  if (found.cell === null) {
    const { shown, locked, values, warning = null, problem = null } = row;
    return {
      sort: 'row',
      shown,
      onScreen: shown && field.onScreen,
      locked,
      editable: !locked && field.editable,
      warning,
      problem,
      value: values,
    };
  }
  const definition = fieldsOf(form).find((one) => one.name === found.rows);
  const cell = definition && cellsOf(definition).find((one) => one.name === found.cell);
  return cell && cellState(field, row, cell);
}

/** A part as the tape names it: rows by their id, `cargo#1.weight` for `cargo[0].weight`. */
export function nameOnTape(seen: Pick<Seen, 'rows'>, address: string): string {
  const found = readRowAddress(address);
  const row = found === null ? undefined : seen.rows[found.rows]?.order[found.place];
  if (found === null || row === undefined) return address;
  const name = `${found.rows}#${row}`;
  return found.cell === null ? name : `${name}.${found.cell}`;
}

/** The other way round: a part of the tape as it is named by its place now; as it is where its row is gone. */
export function addressNow(seen: Pick<Seen, 'rows'>, name: string): string {
  const [, rows, id, cell = ''] = /^(\w+)#(\d+)(\.\w+)?$/.exec(name) ?? [];
  const place = rows === undefined ? -1 : (seen.rows[rows]?.order.indexOf(id!) ?? -1);
  return place < 0 ? name : `${rows}[${place}]${cell}`;
}

function withRows(seen: Seen, name: string): PartState {
  const part = seen.parts[name]!;
  return seen.rows[name] === undefined ? part : { ...part, value: rowValues(seen, name) };
}

/** All parts by their address, rows and cells by their place. */
export function partsSeen(seen: Seen, form: Form): Record<string, PartState> {
  const parts: Record<string, PartState> = {};
  for (const name of Object.keys(seen.parts)) parts[name] = withRows(seen, name);
  for (const field of fieldsOf(form)) {
    seen.rows[field.name]?.order.forEach((_, place) => {
      const addresses = [
        `${field.name}[${place}]`,
        ...cellsOf(field).map((cell) => `${field.name}[${place}].${cell.name}`),
      ];
      for (const address of addresses) parts[address] = partSeen(seen, form, address)!;
    });
  }
  return parts;
}

/** The value of a rows field as seen. */
export function rowValues(seen: Seen, name: string): Value {
  const rows = seen.rows[name];
  return rows === undefined ? [] : rows.order.map((id) => rows.byId[id]!.values);
}

/** What would be saved as things are: every field, but those off screen that leave their value out. */
export function savedValues(seen: Seen, form: Form): Values {
  return Object.fromEntries(
    fieldsOf(form).map((field): [string, Value] => {
      const { onScreen, value = null } = seen.parts[field.name]!;
      if (field.whenHidden === 'omit' && !onScreen) return [field.name, emptyOf(field)];
      return [field.name, field.kind === 'rows' ? rowValues(seen, field.name) : value];
    }),
  );
}

/** Whether a value can be chosen in a part now; any can where its options are the definition's. */
export function isOffered(part: PartState | undefined, value: Value): boolean {
  if (isEmpty(value) || part?.options == null) return true;
  const keys = part.options.map(({ key }) => key);
  return [value].flat().every((key) => keys.includes(String(key)));
}

/** What is seen after the opening and so many steps. */
export function seenAt(answers: readonly Answer[], steps: number): Seen {
  return answers.slice(0, steps + 1).reduce(seenAfter, NOTHING_SEEN);
}

/** What was said since some moment. */
export interface Heard {
  messages: Message[];
  log: LogLine[];
  errors: Failure[];
  refused: { step: number; why: string }[];
  /** Values handed to the parent. */
  toParent: { set: string; to: Value }[];
}

export function nothingHeard(): Heard {
  return { messages: [], log: [], errors: [], refused: [], toParent: [] };
}
