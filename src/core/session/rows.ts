/**
 * The rows of a rows field in use. A row keeps its id whatever place it has, so moving or removing it carries its
 * state along. Cells become parts only when somebody touches them: most of ten thousand rows are values
 * and nothing else. Changes go through `state.ts`, which can undo them.
 */
import type { Field, FieldOf } from '../form/definition';
import { deepFreeze, equal, type Value, type Values } from '../form/value';
import { Aspect, type AspectName } from './aspects';
import { inOrder, keepMap, keepSet, type Restore } from './checkpoint';
import { basesOf, NOTHING_TOLD, Part, ROW_BASES, type Bases, type Nesting } from './parts';
import type { RowState } from './step';
import type { EachRule, Rule } from './tie';

interface RowsColumn {
  field: Field;
  bases: Bases;
  /** Its place among the columns, from 0. */
  at: number;
}

export class Row {
  readonly part: Part;
  readonly cells = new Map<string, Part>();
  /** The rules for each row, bound to this one. */
  rules: Rule[] = [];
  /** Not in the list: not yet, or no longer. */
  removed = true;
  /** While a list is replaced: it is in the new one. */
  here = false;
  /** Its values as opened or saved; null for a row that came since. */
  initial: Readonly<Values> | null = null;
  /** Its state as it was reported last. */
  told: { values: Readonly<Values> | null; state: Partial<RowState> } = { values: null, state: {} };

  constructor(
    readonly rows: Rows,
    readonly id: string,
    /** Every cell, frozen; a change makes a new object, so that unchanged rows are known by identity. */
    public values: Readonly<Values>,
    nesting: Nesting,
  ) {
    this.part = new Part(
      'row',
      `${rows.field.name}#${id}`,
      rows.field.definition,
      rows.field,
      nesting,
      ROW_BASES,
      this,
    );
  }

  checkpoint(): Restore {
    const { values, rules, removed, initial } = this;
    const told = { values: this.told.values, state: { ...this.told.state } };
    const part = this.part.checkpoint();
    const cells = new Map([...this.cells].map(([name, cell]) => [name, cell.checkpoint()]));
    return () => {
      Object.assign(this, { values, rules, removed, initial });
      this.told = { values: told.values, state: { ...told.state } };
      part();
      // One that somebody has touched since stays a part, which whoever numbered it knows.
      for (const [name, cell] of this.cells) {
        const restore = cells.get(name);
        if (restore !== undefined) restore();
        else {
          cell.reset();
          cell.told = NOTHING_TOLD;
        }
      }
    };
  }

  /** Its place now, from 0; −1 once removed. */
  get index(): number {
    return this.rows.list.indexOf(this);
  }
}

export class Rows {
  readonly columns: ReadonlyMap<string, RowsColumn>;
  /** The names of the columns in their order. */
  readonly columnNames: readonly string[];
  /** In the order shown. Replaced, never changed in place. */
  list: readonly Row[] = [];
  /** The rows as opened or saved, each with its values then. */
  initial: { list: readonly Row[]; values: readonly Readonly<Values>[] } = { list: [], values: [] };
  /** Rows whose values differ from those as opened, while the list is still the same. */
  readonly differing = new Set<Row>();
  /** The rules that hold for each row. */
  each: readonly EachRule[] = [];
  toldOrder: readonly Row[] | null = null;
  /** Its rows were replaced by those of another record, which has not been reported yet. */
  anew = false;
  readonly #derived = new Map<string, Aspect>();
  #value: readonly Value[] | null = null;
  readonly #sums = new Map<string, number>();
  #ids: { list: readonly Row[]; ids: readonly string[] } | null = null;
  #next = 1;

  constructor(
    readonly field: Part,
    definition: FieldOf<'rows'>,
    private readonly nesting: Nesting,
  ) {
    this.columnNames = definition.fields.map(({ name }) => name);
    this.columns = new Map(
      definition.fields.map((cell, at) => [
        cell.name,
        { field: cell, bases: basesOf('field', cell), at },
      ]),
    );
  }

  make(values: Values): Row {
    return new Row(this, String(this.#next++), deepFreeze({ ...values }), this.nesting);
  }

  cell(row: Row, name: string): Part {
    const made = row.cells.get(name);
    if (made !== undefined) return made;
    const { field, bases } = this.columns.get(name)!;
    const part = new Part(
      'field',
      `${row.part.name}.${name}`,
      field,
      row.part,
      this.nesting,
      bases,
      row,
    );
    row.cells.set(name, part);
    return part;
  }

  /** The value of the whole field. Built when somebody asks, and kept until something changes. */
  get value(): Value {
    return (this.#value ??= Object.freeze(this.list.map((row) => row.values)));
  }

  /** The ids in order, which is what depends on rows being added, removed or moved. */
  get order(): Aspect {
    return this.#derive('order', () => {
      if (this.#ids?.list !== this.list)
        this.#ids = { list: this.list, ids: Object.freeze(this.list.map((row) => row.id)) };
      return this.#ids.ids;
    });
  }

  get count(): Aspect {
    return this.#derive('count', () => this.list.length);
  }

  /** The sum of a column, empty cells counting nothing; in IEEE doubles from the first row to the last. */
  sum(column: string): Aspect {
    return this.#derive(`sum:${column}`, () => {
      const known = this.#sums.get(column);
      if (known !== undefined) return known;
      let sum = 0;
      for (const { values } of this.list) sum += (values[column] as number | null) ?? 0;
      this.#sums.set(column, sum);
      return sum;
    });
  }

  #derive(name: AspectName, compute: () => Value): Aspect {
    let aspect = this.#derived.get(name);
    if (aspect === undefined)
      this.#derived.set(name, (aspect = new Aspect(this.field, name, null, compute)));
    return aspect;
  }

  /** Something changed: the aspects computed from it, to be looked at again. A null column means rows came, went or moved. */
  changed(column: string | null): Aspect[] {
    this.#value = null;
    const stirred: Aspect[] = [];
    const { value } = this.field.aspects;
    if (value !== undefined) stirred.push(value);
    if (column === null) {
      this.#sums.clear();
      stirred.push(...this.#derived.values());
    } else if (this.#sums.delete(column)) stirred.push(this.#derived.get(`sum:${column}`)!);
    return stirred;
  }

  /** Whether the field differs from what was opened; `row` is the one that changed, null when rows came, went or moved. */
  differs(row: Row | null): boolean {
    const { list, initial, differing } = this;
    if (list !== initial.list)
      return (
        list.length !== initial.values.length ||
        list.some((one, i) => !equal(one.values, initial.values[i]))
      );
    for (const one of row === null ? list : [row]) {
      if (equal(one.values, one.initial)) differing.delete(one);
      else differing.add(one);
    }
    return differing.size > 0;
  }

  /** What stands now is what was opened or saved. */
  rebase(): void {
    const { list } = this;
    this.initial = { list, values: list.map((row) => row.values) };
    for (const row of list) row.initial = row.values;
    this.differing.clear();
  }

  checkpoint(): Restore {
    const { list, initial, each, toldOrder, anew } = this;
    const next = this.#next;
    const differing = keepSet(this.differing);
    // Kept and not computed anew: a change is told to those that have asked for a sum since the last one.
    const sums = keepMap(this.#sums);
    const rows = inOrder(list.map((row) => row.checkpoint()));
    const derived = new Map(
      [...this.#derived.values()].map((aspect) => [aspect, aspect.checkpoint()]),
    );
    return () => {
      Object.assign(this, { list, initial, each, toldOrder, anew });
      this.#next = next;
      this.#value = null;
      sums();
      differing();
      rows();
      for (const aspect of this.#derived.values())
        (derived.get(aspect) ?? (() => aspect.reset(null)))();
    };
  }

  clear(): void {
    this.list = [];
    this.anew = true;
    this.initial = { list: [], values: [] };
    this.differing.clear();
    this.#next = 1;
    for (const aspect of this.changed(null)) aspect.readers?.clear();
  }
}
