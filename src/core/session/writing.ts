/**
 * Writing values and rows, whoever does: each write is taped with its cause, and what has to be reported of it is
 * gathered: of a run one change for each field, from before the run to after it.
 */
import { equal, type Value, type Values } from '../form/value';
import type { By } from '../wire/layout';
import type { Aspect, RunRecord } from './aspects';
import type { Part } from './parts';
import type { Event, Progress } from './progress';
import type { Row, Rows } from './rows';
import type { State } from './state';
import type { TapeWriter } from './tape-writer';
import type { Ties } from './ties';
import type { Line } from '../wire/line';

/** What one run wrote, for telling others when it is over. What most runs never need is made when it is first needed. */
export class Writes {
  /** Values written, with what stood before. */
  before: Map<Aspect, Value> | null = null;
  /** Rows fields it changed, with their value before where somebody will ask. */
  rowsBefore: Map<Rows, Value> | null = null;
  /** Rows that came and went. */
  rows: Event[] | null = null;
  /** The last effect on each value, as the cause of what follows. */
  effects: Map<Aspect, number | null> | null = null;

  constructor(
    readonly record: RunRecord,
    /** The entry of the run on the tape. */
    readonly entry: number | null,
  ) {}
}

const NOTHING: readonly Event[] = [];

export class Writing {
  constructor(
    private readonly state: State,
    private readonly tape: TapeWriter,
    private readonly progress: Progress,
    private readonly ties: Ties,
  ) {}

  /** Writes a value that a script said. False when it stood there already. */
  value(writes: Writes, aspect: Aspect, value: Value, line: Line): boolean {
    const { rows, row } = aspect.part;
    if (rows !== null) return this.#wholeRows(writes, rows, value as readonly Values[], line);
    const from = aspect.base;
    if (equal(from, value)) return false;
    if (row !== null) this.#rowsTouched(writes, row.rows);
    writes.before ??= new Map();
    if (!writes.before.has(aspect)) writes.before.set(aspect, from);
    this.state.setValue(aspect, value, writes.record);
    const effect = this.tape.effect(writes.entry, aspect, from, value, { by: 'script', line });
    if (this.tape.on) (writes.effects ??= new Map()).set(aspect, effect);
    return true;
  }

  /** Brings a rows field to a value: cells by place, rows added and removed at the end. */
  #wholeRows(writes: Writes, rows: Rows, value: readonly Values[], line: Line): boolean {
    let wrote = false;
    value.slice(0, rows.list.length).forEach((wanted, i) => {
      const row = rows.list[i]!;
      for (const name of rows.columns.keys()) {
        if (equal(row.values[name], wanted[name])) continue;
        wrote =
          this.value(writes, rows.cell(row, name).aspect('value'), wanted[name]!, line) || wrote;
      }
    });
    for (const row of rows.list.slice(value.length)) {
      this.removeRow(writes, row, line);
      wrote = true;
    }
    for (const wanted of value.slice(rows.list.length)) {
      this.addRow(writes, rows, wanted, line);
      wrote = true;
    }
    return wrote;
  }

  #rowsTouched(writes: Writes, rows: Rows): void {
    writes.rowsBefore ??= new Map();
    if (!writes.rowsBefore.has(rows)) writes.rowsBefore.set(rows, this.#valueIfHeard(rows));
  }

  /** The value of a rows field costs as much as it has rows, so it is made only where something needs it. */
  #valueIfHeard(rows: Rows): Value {
    return this.ties.listens('change', rows.field) ? rows.value : null;
  }

  addRow(writes: Writes, rows: Rows, values: Values, line: Line): Row {
    this.#rowsTouched(writes, rows);
    const row = rows.make(values);
    this.state.setRows(rows, [...rows.list, row]);
    this.#rowEvent(writes, row, 'added', rows.list.length - 1, line);
    return row;
  }

  removeRow(writes: Writes, row: Row, line: Line): void {
    const { rows } = row;
    this.#rowsTouched(writes, rows);
    const place = row.index;
    this.state.setRows(
      rows,
      rows.list.filter((other) => other !== row),
    );
    this.#rowEvent(writes, row, 'removed', place, line);
  }

  #rowEvent(writes: Writes, row: Row, did: 'added' | 'removed', place: number, line: Line): void {
    const entry = this.tape.add(writes.entry, {
      type: 'rows',
      part: row.rows.field.name,
      did,
      row: row.id,
      place,
      by: 'script',
      line,
    });
    (writes.rows ??= []).push(
      rowEvent(row, did, 'script', writes.record, entry?.n ?? writes.entry),
    );
  }

  /** What handlers and rules have to hear of what a run wrote, in order. */
  told(writes: Writes): readonly Event[] {
    if (writes.before === null && writes.rowsBefore === null && writes.rows === null)
      return NOTHING;
    const { record, entry } = writes;
    const events: Event[] = [];
    for (const [aspect, previous] of writes.before ?? []) {
      const { base: value, part } = aspect;
      const cause = writes.effects?.get(aspect) ?? entry;
      if (part.row?.removed !== true && !equal(previous, value))
        events.push(changeEvent(part, value, previous, 'script', record, cause));
    }
    events.push(...(writes.rows ?? []));
    for (const [rows, previous] of writes.rowsBefore ?? [])
      events.push(...this.#wholeChange(rows, previous, 'script', record, entry));
    return events;
  }

  #wholeChange(
    rows: Rows,
    previous: Value,
    by: By,
    from: RunRecord | null,
    cause: number | null,
  ): Event[] {
    if (!this.ties.listens('change', rows.field)) return [];
    const { value, field } = rows;
    return equal(previous, value) ? [] : [changeEvent(field, value, previous, by, from, cause)];
  }

  /** Writes a value that no script wrote: tapes it and queues its events. A rows field is only ever emptied as a whole. */
  enter(part: Part, value: Value, by: By, cause: number | null): void {
    const { rows, row } = part;
    if (rows !== null) return this.arrange(rows.field, [], rows.list, 'removed', by, cause);
    const aspect = part.aspect('value');
    const previous = aspect.base;
    const whole = row?.rows ?? null;
    const rowsBefore = whole === null ? null : this.#valueIfHeard(whole);
    this.state.setValue(aspect, value, null);
    const why = this.tape.effect(cause, aspect, previous, value, { by, line: null });
    const events = this.ties.listens('change', part)
      ? [changeEvent(part, value, previous, by, null, why)]
      : [];
    if (whole !== null) events.push(...this.#wholeChange(whole, rowsBefore, by, null, why));
    this.#announce(events, by);
  }

  /** Puts the rows of a field in another order, with those named new, gone or moved, and queues its events. */
  arrange(
    field: Part,
    list: readonly Row[],
    touched: readonly Row[],
    did: 'added' | 'removed' | 'moved',
    by: By,
    cause: number | null,
  ): void {
    const rows = field.rows!;
    const before = this.#valueIfHeard(rows);
    const places = did === 'removed' ? rows.list : list;
    const taped = touched.map((row) => ({ row, place: this.tape.on ? places.indexOf(row) : -1 }));
    this.state.setRows(rows, list);
    let why = cause;
    for (const { row, place } of taped) {
      why =
        this.tape.add(cause, {
          type: 'rows',
          part: field.name,
          did,
          row: row.id,
          place,
          by,
          line: null,
        })?.n ?? cause;
    }
    const events = did === 'moved' ? [] : taped.map(({ row }) => rowEvent(row, did, by, null, why));
    this.#announce([...events, ...this.#wholeChange(rows, before, by, null, why)], by);
  }

  /** A person's events belong to the item being taken, so they go before all that wait; the form's come after. */
  #announce(events: readonly Event[], by: By): void {
    if (events.length === 0) return;
    if (by === 'person') this.progress.queue.unshift(...events);
    else this.progress.queue.push(...events);
  }
}

function changeEvent(
  part: Part,
  value: Value,
  previous: Value,
  by: By,
  from: RunRecord | null,
  cause: number | null,
): Event {
  return { type: 'change', part, row: part.row, value, previous, by, from, cause };
}

function rowEvent(
  row: Row,
  did: 'added' | 'removed',
  by: By,
  from: RunRecord | null,
  cause: number | null,
): Event {
  return {
    type: did === 'added' ? 'rowAdded' : 'rowRemoved',
    part: row.rows.field,
    row,
    value: row.values,
    previous: null,
    by,
    from,
    cause,
  };
}
