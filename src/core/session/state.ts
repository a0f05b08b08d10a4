/**
 * The state of a session: every aspect of every part, changed only through the writes below, each of which can be
 * undone. What a change concerns is noted in `outdated.ts`; what fields offer is `offers.ts`. How a record becomes state
 * is `records.ts`; running scripts is `running.ts`.
 */
import type { Form } from '../form/definition';
import { type Fits } from '../form/kinds';
import type { Table } from '../form/table';
import { equal, type Value } from '../form/value';
import type { Aspect, RunRecord } from './aspects';
import { inOrder, keepMap, keepSet, type Restore } from './checkpoint';
import type { Journal } from './journal';
import { Offers } from './offers';
import { Outdated } from './outdated';
import { NOTHING_TOLD, type Part } from './parts';
import type { Row, Rows } from './rows';
import { partsOf, type Parts } from './tree';
import { ruleOf, type Rule } from './tie';
import type { Line } from '../wire/line';

/** A fault on a part: what a check found, or where a script stopped and what its handler had read. */
export interface Fault {
  says: string;
  /** What makes it go when it changes; null for what a check found, which goes once it is mended. */
  readsOf: ReadonlySet<Part> | null;
}

export class State {
  readonly parts: Parts;
  readonly offers: Offers;
  /** What has to be looked at again because of what changed. */
  readonly outdated: Outdated;
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
    this.offers = new Offers(tables);
    this.outdated = new Outdated(this.parts);
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
      this.outdated.parts.add(part);
      this.journal.undoable(() => this.faults.set(part, fault));
    }
  }

  #valueChanged(aspect: Aspect): void {
    const { part } = aspect;
    const { row } = part;
    this.outdated.stir(aspect);
    if (row === null) {
      this.#judgeChanged(part, () => !equal(aspect.base, this.initial.get(part) ?? null));
      return;
    }
    const { values } = row.part.aspects;
    if (values !== undefined) this.outdated.stirReaders(values);
    for (const derived of row.rows.changed(part.field.name)) this.outdated.stirReaders(derived);
    if (!row.removed) this.outdated.parts.add(row.part);
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
    for (const derived of rows.changed(null)) this.outdated.stirReaders(derived);
    this.outdated.parts.add(rows.field);
    this.#judgeChanged(rows.field, () => rows.differs(null));
  }

  #arrive(rows: Rows, row: Row): void {
    row.removed = false;
    row.rules = rows.each.map(
      ({ made }) => row.rules.find((rule) => rule.order === made.order) ?? ruleOf(made, row),
    );
    for (const rule of row.rules) {
      for (const aspect of rule.reads?.keys() ?? []) aspect.readBy(rule);
      this.outdated.add(rule);
    }
    this.outdated.parts.add(row.part);
    for (const cell of row.cells.values()) this.outdated.parts.add(cell);
  }

  /** Nothing of a removed row is asked, checked or told any more; undoing brings it back as it was. */
  #leave(row: Row): void {
    row.removed = true;
    row.told = { values: null, state: {} };
    for (const rule of row.rules) {
      this.outdated.delete(rule);
      for (const aspect of rule.reads?.keys() ?? []) aspect.readers?.delete(rule);
    }
    this.outdated.parts.delete(row.part);
    for (const cell of row.cells.values()) {
      cell.told = NOTHING_TOLD;
      this.outdated.parts.delete(cell);
      this.faults.delete(cell);
    }
  }

  /** Puts a word as it was boxed before, which is how what a superseded run said is taken back. */
  putHandlerClaim(aspect: Aspect, word: Aspect['handlerClaim'], by: RunRecord | null): void {
    const { handlerClaim: before, changedBy } = aspect;
    this.journal.undoable(() => {
      aspect.handlerClaim = before;
      aspect.changedBy = changedBy;
      this.outdated.stir(aspect);
    });
    aspect.handlerClaim = word;
    aspect.changedBy = by;
    this.outdated.stir(aspect);
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
      this.outdated.stir(aspect);
    });
    aspect.ruleClaims = aspect.withClaim(rule, word);
    aspect.changedBy = by;
    this.outdated.stir(aspect);
  }

  /** Another record is opened: nothing of the former one stays. */
  reset(): void {
    this.outdated.rules.clear();
    this.outdated.invariants.clear();
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

  /** Between steps no rule waits for its turn, and everything has been told. */
  checkpoint(): Restore {
    const all = inOrder([
      ...[this.initial, this.previous, this.strays].map((map) => keepMap(map)),
      keepMap(this.faults),
      keepSet(this.orphans),
      keepSet(this.#differing),
      ...[...this.parts.byName.values()].map((part) => part.checkpoint()),
    ]);
    return () => {
      all();
      this.outdated.forget();
      // What is on screen is looked at anew.
      this.parts.nesting.version++;
    };
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
    this.outdated.stir(aspect);
  }
}
