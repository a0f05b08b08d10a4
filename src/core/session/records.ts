/** Opening records: the one a session begins with, and the next and previous ones. */
import type { Field } from '../form/definition';
import { accept } from '../form/kinds';
import type { Value, Values } from '../form/value';
import type { Failure } from '../wire/failures';
import { valuesOf } from './submitted-values';
import type { Clock } from './clock';
import type { Corrections } from './corrections';
import type { Defaults } from './defaults';
import type { Opened } from './opened';
import type { Part } from './parts';
import type { Invariants } from './invariants';
import { OF_FORM, type Progress } from './progress';
import type { Rows } from './rows';
import type { Running } from './running';
import type { Settling } from './settling';
import type { Situation } from './situation';
import type { State } from './state';
import type { Opening } from './step';
import type { TapeWriter } from './tape-writer';
import type { Ties } from './ties';
import type { Waiting } from './waiting';
import { emptyOf, holdsKeys, isList } from '../form/traits';

export class Records {
  constructor(
    private readonly state: State,
    private readonly situation: Situation,
    private readonly clock: Clock,
    private readonly tape: TapeWriter,
    private readonly progress: Progress,
    private readonly settling: Settling,
    private readonly ties: Ties,
    private readonly running: Running,
    private readonly waiting: Waiting,
    private readonly corrections: Corrections,
    private readonly opened: Opened,
    /** Failures of scripts' top levels: those behaviours are out for good. */
    private readonly out: readonly Failure[],
    private readonly defaults: Defaults,
    private readonly invariants: Invariants,
  ) {}

  /** Opens a record, or a new entry: base and record, `load` handlers, rules. The number of its entry on the tape. */
  open(record: Opening['record']): number | null {
    const { parts } = this.state;
    this.situation.isNew = record === null;
    this.situation.record = record?.id ?? null;
    if (this.situation.viewing) {
      parts.form.aspect('locked').base = true;
      parts.nesting.version++;
    }
    for (const part of parts.fields)
      this.#begin(
        part,
        record === null
          ? this.defaults.of(part.field)
          : Object.hasOwn(record.values, part.name)
            ? record.values[part.name]!
            : null,
      );
    this.state.rebase();
    for (const part of parts.byName.values()) this.state.outdated.parts.add(part);
    this.#touchUnoffered();
    const entry = this.tape.add(null, {
      type: 'opened',
      record: this.situation.record,
      person: this.situation.opening.person.key,
      clock: this.clock.now,
      values: valuesOf(this.state),
    });
    const cause = entry?.n ?? null;
    for (const failure of this.out) this.tape.add(cause, { type: 'error', failure });
    this.progress.errors.push(...this.out);
    this.progress.begin(true);
    for (const rule of this.ties.rules) this.state.outdated.add(rule);
    this.progress.queue.push({
      ...OF_FORM,
      type: 'load',
      by: 'form',
      cause,
    });
    this.settling.settle(cause);
    this.opened.note(parts.fields);
    this.situation.page = parts.pages.find((page) => page.onScreen) ?? null;
    return cause;
  }

  /** Opens the next or the previous record: `load` fires for it, and nothing of the former one stays. Why not, or null. */
  turn(by: 1 | -1, cause: number | null): string | null {
    const records = this.situation.opening.records ?? [];
    const at = records.findIndex((record) => record.id === this.situation.record);
    const to = at < 0 ? undefined : records[at + by];
    if (to === undefined) return by > 0 ? 'there is no next record' : 'there is no previous record';
    for (const run of this.waiting.runs) this.running.supersede(run, 'another record', cause);
    this.ties.leaveRecord();
    this.settling.failing.clear();
    this.invariants.forget();
    this.corrections.forget();
    this.progress.queue.length = 0;
    this.progress.commit();
    this.state.reset();
    this.situation.focused = null;
    this.situation.typing = null;
    this.open(to);
    return null;
  }

  /** Keys in rows that are not offered have to be marked or dropped, though nobody has touched their cells. */
  #touchUnoffered(): void {
    for (const { rows } of this.state.parts.fields) {
      if (rows === null) continue;
      for (const [name, { field }] of rows.columns) {
        if (!holdsKeys(field)) continue;
        const around = { options: null, table: (table: string) => this.state.offers.table(table) };
        for (const row of rows.list)
          if (!accept(row.values[name], field, around).ok)
            this.state.outdated.parts.add(rows.cell(row, name));
      }
    }
  }

  /** Gives a field the value a record or the definition brings, before anything runs. */
  #begin(part: Part, offered: Value): void {
    const { field, rows } = part;
    if (rows === null) {
      part.aspect('value').base = this.#firstValue(field, offered, part);
      return;
    }
    rows.clear();
    const list = Array.isArray(offered) ? (offered as unknown[]) : [];
    if (!Array.isArray(offered) && offered !== null) this.state.strays.set(part, offered);
    this.state.replaceRows(
      rows,
      list.map((row) => rows.make(this.#firstRow(rows, row as Values | null))),
    );
  }

  #firstRow(rows: Rows, offered: Values | null): Values {
    const row: Values = {};
    for (const [name, { field }] of rows.columns)
      row[name] = this.#firstValue(
        field,
        offered !== null && typeof offered === 'object' && Object.hasOwn(offered, name)
          ? offered[name]!
          : null,
        null,
      );
    return row;
  }

  /** What is no value of its kind is a stray where a part is given to keep it. */
  #firstValue(field: Field, offered: Value, keeper: Part | null): Value {
    // A key that is no longer known is kept, marked and shown.
    if (
      holdsKeys(field) &&
      (isList(field)
        ? Array.isArray(offered) && offered.every((key) => typeof key === 'string')
        : typeof offered === 'string')
    )
      return offered;
    const accepted = accept(offered, field, {
      options: null,
      table: (name) => this.state.offers.table(name),
    });
    if (!accepted.ok && keeper !== null) this.state.strays.set(keeper, offered);
    return accepted.ok ? accepted.value : emptyOf(field);
  }
}
