/**
 * The state of a session: every aspect of every part, changed only through the writes below, each of which can be
 * undone. It knows which rules a change concerns and which parts to tell the outside about. How a record becomes state
 * is `records.ts`; running scripts is `running.ts`.
 */
import type { Field, Form, Option } from '../form/definition';
import { type Fits } from '../form/kinds';
import { definedOptions, type ReadingContext } from '../form/reading';
import type { Table } from '../form/table';
import { indexOf, type TableIndex } from '../form/table-index';
import { equal, type Value } from '../form/value';
import type { Aspect, RunRecord } from './aspects';
import type { Journal } from './journal';
import { NOTHING_TOLD, type Part } from './parts';
import type { Row, Rows } from './rows';
import { Stirred } from './stirred';
import { partsOf, type Parts } from './tree';
import { ruleOf, type Rule } from './tie';
import type { Line } from '../wire/line';
import { holdsKeys } from '../form/traits';

/** A fault on a part: what a check found, or where a script stopped and what its handler had read. */
export interface Fault {
  says: string;
  /** What makes it go when it changes; null for what a check found, which goes once it is mended. */
  readsOf: ReadonlySet<Part> | null;
}

export class State {
  readonly parts: Parts;
  readonly tables = new Map<string, TableIndex>();
  /** Rules that read something which was touched; whether it really differs is asked at their turn. */
  readonly stirred = new Stirred();
  /** Parts whose state may differ from what was reported. */
  readonly touched = new Set<Part>();
  /** The values as opened or saved, against which `changed` is judged. */
  readonly initial = new Map<Part, Value>();
  /** Values before the last change. */
  readonly previous = new Map<Part, Value>();
  /** Fields whose value came with the record and is not offered. */
  readonly orphans = new Set<Part>();
  /** What a record brought that is no value of its field's kind any more: empty for scripts, saved again as it is. */
  readonly strays = new Map<Part, Value>();
  /** Faults found by the last check, by field, until mended; those a script stopped at stay until the value changes. */
  readonly faults = new Map<Part, Fault>();
  readonly #differing = new Set<Part>();

  constructor(
    form: Form,
    tables: readonly Table[],
    private readonly journal: Journal,
    /** Checks a text against a pattern of the definition. */
    readonly fits: Fits,
  ) {
    this.parts = partsOf(form);
    for (const table of tables) this.tables.set(table.name, indexOf(table));
  }

  table(name: string): TableIndex {
    return this.tables.get(name)!;
  }

  surroundings(part: Part): ReadingContext {
    return {
      options: part.now('options') as readonly Option[] | null,
      table: (name) => this.table(name),
    };
  }

  /** The options of a choice or reference as seen now: those a script set, else those of the definition. */
  optionsOf(field: Field, set: Value): readonly Option[] | null {
    if (set !== null) return set as unknown as readonly Option[];
    return holdsKeys(field) ? definedOptions(field, (name) => this.table(name)) : null;
  }

  isOffered(part: Part, value: Value): boolean {
    return this.notOffered(part, value).length === 0;
  }

  /** The keys of a value that are not among the options now. */
  notOffered(part: Part, value: Value): string[] {
    const { field } = part;
    if (value === null || !holdsKeys(field)) return [];
    const set = part.now('options') as readonly Option[] | null;
    const keys = (Array.isArray(value) ? value : [value]) as readonly string[];
    // A reference with all its rows on offer is asked by key, not by walking ten thousand options.
    if (set === null && field.kind === 'reference')
      return keys.filter((key) => this.table(field.table).find(key) === null);
    const options = this.optionsOf(field, set)!;
    return keys.filter((key) => !options.some((option) => option.key === key));
  }

  /** The value as opened or saved; null for a cell of a row that came since. */
  initialOf(part: Part): Value {
    const { row, rows } = part;
    if (row !== null) return row.initial?.[part.field.name] ?? null;
    return rows === null
      ? (this.initial.get(part) ?? null)
      : Object.freeze([...rows.initial.values]);
  }

  get changed(): boolean {
    return this.#differing.size > 0;
  }

  /** Writes a value slot. `by` is the run to blame, or null for persons and the form. Whole rows are written row by row. */
  setValue(aspect: Aspect, value: Value, by: RunRecord | null): void {
    const { part, base: before, changedBy } = aspect;
    const { row } = part;
    const rowBefore = row?.values;
    const wasOrphan = this.orphans.has(part);
    const stray = this.strays.get(part);
    const previous = this.previous.get(part);
    this.journal.undoable(() => {
      aspect.base = before;
      aspect.changedBy = changedBy;
      if (row !== null) row.values = rowBefore!;
      if (wasOrphan) this.orphans.add(part);
      if (stray !== undefined) this.strays.set(part, stray);
      if (previous === undefined) this.previous.delete(part);
      else this.previous.set(part, previous);
      this.#valueChanged(aspect);
    });
    aspect.base = value;
    aspect.changedBy = by;
    if (row !== null) row.values = Object.freeze({ ...row.values, [part.field.name]: value });
    this.previous.set(part, before);
    if (wasOrphan) this.orphans.delete(part);
    if (stray !== undefined) this.strays.delete(part);
    if (this.faults.size > 0) this.#dropStops(part);
    this.#valueChanged(aspect);
  }

  /** Where a script stopped on a part, the stop goes when that part, or one that the handler had read, changes. */
  #dropStops(changed: Part): void {
    const whole = changed.row?.rows.field;
    for (const [part, fault] of this.faults) {
      const { readsOf } = fault;
      if (
        readsOf === null ||
        !(part === changed || readsOf.has(changed) || (whole !== undefined && readsOf.has(whole)))
      )
        continue;
      this.faults.delete(part);
      this.touched.add(part);
      this.journal.undoable(() => this.faults.set(part, fault));
    }
  }

  #valueChanged(aspect: Aspect): void {
    const { part } = aspect;
    const { row } = part;
    this.#stir(aspect);
    if (row === null) {
      this.#judgeChanged(part, () => !equal(aspect.base, this.initial.get(part) ?? null));
      return;
    }
    const { values } = row.part.aspects;
    if (values !== undefined) this.#stirReaders(values);
    for (const derived of row.rows.changed(part.field.name)) this.#stirReaders(derived);
    if (!row.removed) this.touched.add(row.part);
    this.#judgeChanged(row.rows.field, () => row.rows.differs(row));
  }

  /** Puts rows in another order, with some new or gone; each knows by itself whether it is still there. */
  setRows(rows: Rows, list: readonly Row[]): void {
    const before = rows.list;
    this.journal.undoable(() => this.replaceRows(rows, before));
    this.replaceRows(rows, list);
    if (this.faults.size > 0) this.#dropStops(rows.field);
  }

  /** The same without a way back: rows as a record brings them. */
  replaceRows(rows: Rows, list: readonly Row[]): void {
    const { list: before } = rows;
    rows.list = list;
    // Two passes over plain flags: with ten thousand rows this is what adding one costs.
    for (const row of before) row.here = false;
    for (const row of list) {
      if (row.removed) this.#arrive(rows, row);
      row.here = true;
    }
    for (const row of before) if (!row.here) this.#leave(row);
    for (const derived of rows.changed(null)) this.#stirReaders(derived);
    this.touched.add(rows.field);
    this.#judgeChanged(rows.field, () => rows.differs(null));
  }

  #arrive(rows: Rows, row: Row): void {
    row.removed = false;
    row.rules = rows.each.map(
      ({ made }) => row.rules.find((rule) => rule.order === made.order) ?? ruleOf(made, row),
    );
    for (const rule of row.rules) {
      for (const aspect of rule.reads?.keys() ?? []) aspect.readBy(rule);
      this.stirred.add(rule);
    }
    this.touched.add(row.part);
    for (const cell of row.cells.values()) this.touched.add(cell);
  }

  /** Nothing of a removed row is asked, checked or told any more; undoing brings it back as it was. */
  #leave(row: Row): void {
    row.removed = true;
    row.told = { values: null, state: {} };
    for (const rule of row.rules) {
      this.stirred.delete(rule);
      for (const aspect of rule.reads?.keys() ?? []) aspect.readers?.delete(rule);
    }
    this.touched.delete(row.part);
    for (const cell of row.cells.values()) {
      cell.told = NOTHING_TOLD;
      this.touched.delete(cell);
      this.faults.delete(cell);
    }
  }

  /** Puts a handler's word, or takes it back with undefined. */
  setHandlerClaim(aspect: Aspect, value: Value | undefined, by: RunRecord): void {
    this.putHandlerClaim(aspect, value === undefined ? null : { value }, by);
  }

  /** Puts a word as it was boxed before, which is how what a superseded run said is taken back. */
  putHandlerClaim(aspect: Aspect, word: Aspect['handlerClaim'], by: RunRecord | null): void {
    const { handlerClaim: before, changedBy } = aspect;
    this.journal.undoable(() => {
      aspect.handlerClaim = before;
      aspect.changedBy = changedBy;
      this.#stir(aspect);
    });
    aspect.handlerClaim = word;
    aspect.changedBy = by;
    this.#stir(aspect);
  }

  /** Puts a rule's word, or takes it back with null. */
  setRuleClaim(
    aspect: Aspect,
    rule: Rule,
    word: { value: Value; line: Line } | null,
    by: RunRecord,
  ): void {
    const { ruleClaims: before, changedBy } = aspect;
    this.journal.undoable(() => {
      aspect.ruleClaims = before;
      aspect.changedBy = changedBy;
      this.#stir(aspect);
    });
    aspect.ruleClaims = aspect.withClaim(rule, word);
    aspect.changedBy = by;
    this.#stir(aspect);
  }

  /** Another record is opened: nothing of the former one stays. */
  reset(): void {
    this.stirred.clear();
    for (const kept of [
      this.initial,
      this.previous,
      this.orphans,
      this.strays,
      this.faults,
      this.#differing,
    ])
      kept.clear();
    for (const part of this.parts.byName.values()) part.reset();
    this.parts.nesting.version++;
  }

  /** Values as now are the record's: nothing is changed. */
  rebase(): void {
    for (const part of this.parts.fields) {
      if (part.rows === null) this.initial.set(part, part.aspect('value').base);
      else part.rows.rebase();
    }
    this.#differing.clear();
    this.#setChanged(false);
  }

  touch(part: Part): void {
    this.touched.add(part);
  }

  #stirReaders(aspect: Aspect): void {
    if (aspect.readers !== null) for (const rule of aspect.readers) this.stirred.add(rule);
  }

  #stir(aspect: Aspect): void {
    this.#stirReaders(aspect);
    const nests = aspect.name === 'shown' || aspect.name === 'locked';
    if (nests) this.parts.nesting.version++;
    this.#touchWithin(aspect.part, nests);
  }

  #touchWithin(part: Part, nests: boolean): void {
    if (part.row?.removed === true) return;
    this.touched.add(part);
    if (!nests) return;
    for (const child of part.children ?? []) this.#touchWithin(child, true);
    // Whether cells are on screen follows from what they stand in; only those that are cleared have to be looked at.
    if (part.rows !== null) for (const row of part.rows.list) this.#touchCleared(row);
    else if (part.sort === 'row') this.#touchCleared(part.row!);
  }

  #touchCleared(row: Row): void {
    for (const [name, { field }] of row.rows.columns)
      if (field.whenHidden === 'clear') this.touched.add(row.rows.cell(row, name));
  }

  #judgeChanged(part: Part, differs: () => boolean): void {
    const before = this.#differing.size > 0;
    if (differs()) this.#differing.add(part);
    else this.#differing.delete(part);
    if (before !== this.#differing.size > 0) this.#setChanged(!before);
  }

  #setChanged(changed: boolean): void {
    const aspect = this.parts.form.aspect('changed');
    aspect.base = changed;
    this.#stir(aspect);
  }
}
