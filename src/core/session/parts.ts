/**
 * The parts of a form in use. Rows and their cells are parts too, made when somebody first touches them (`rows.ts`);
 * the tree of all parts is made in `tree.ts`. What can be said of a part is `aspects.ts`.
 */
import type { Button, Field, Form, Page, Section, Track } from '../form/definition';
import { deepFreeze, type Value } from '../form/value';
import { Aspect, type AspectName } from './aspects';
import type { Restore } from './checkpoint';
import { basesBy, type Defined } from '../wire/aspects';
import type { Row, Rows } from './rows';
import type { PartSort, PartState } from './step';
import { emptyOf } from '../form/traits';

/** Counted up whenever a part is shown, hidden, locked or unlocked. One for all parts of a form. */
export interface Nesting {
  version: number;
}

/** The aspects that a sort of part has, with what the definition says of each. */
export type Bases = Readonly<Partial<Record<AspectName, Value>>>;

export type Definition = Form | Page | Section | Field | Button | Track;

/** The state of parts that have not been reported yet. All share it; a part gets one of its own with its first report. */
export const NOTHING_TOLD: Readonly<Partial<PartState>> = Object.freeze({});

export class Part {
  /** Without rows and cells, which are found through their field. */
  children: Part[] | null = null;
  /** The rows of a rows field. */
  rows: Rows | null = null;
  #lookedAt = -1;
  #onScreen = true;
  #editable = true;
  /** Those that somebody has touched. */
  readonly aspects: Partial<Record<AspectName, Aspect>> = {};
  /** The state last reported to the outside, so that only differences are reported. */
  told: Readonly<Partial<PartState>> = NOTHING_TOLD;

  constructor(
    readonly sort: PartSort,
    /** Its technical name; `cargo#3` is a row, `cargo#3.weight` a cell, whatever place the row has. */
    readonly name: string,
    readonly definition: Definition,
    readonly parent: Part | null,
    private readonly nesting: Nesting,
    private readonly bases: Bases,
    /** The row that it is or stands in. */
    readonly row: Row | null = null,
  ) {
    if (row === null && parent !== null) (parent.children ??= []).push(this);
  }

  get field(): Field {
    return this.definition as Field;
  }

  /** An aspect that this sort of part has. */
  aspect(name: AspectName): Aspect {
    return (this.aspects[name] ??= this.#make(name));
  }

  /** The value of a field. */
  get value(): Value {
    return this.aspect('value').current;
  }

  #make(name: AspectName): Aspect {
    const { row, rows } = this;
    if (rows !== null && name === 'value') return new Aspect(this, name, null, () => rows.value);
    if (row !== null && name === 'values') return new Aspect(this, name, null, () => row.values);
    return new Aspect(this, name, this.#baseOf(name));
  }

  #baseOf(name: AspectName): Value {
    const { row } = this;
    if (row !== null && name === 'value') return row.values[this.field.name] ?? null;
    return this.bases[name] as Value;
  }

  has(name: AspectName): boolean {
    return name in this.bases;
  }

  get onScreen(): boolean {
    if (this.#lookedAt !== this.nesting.version) this.#look();
    return this.#onScreen;
  }

  get editable(): boolean {
    if (this.#lookedAt !== this.nesting.version) this.#look();
    return this.#editable;
  }

  /** What was said of an aspect, or its base while nobody touched it. */
  now(name: AspectName): Value {
    const aspect = this.aspects[name];
    return aspect === undefined ? (this.bases[name] as Value) : aspect.current;
  }

  /** Asked many times a step and changed seldom, so both are kept until something is shown, hidden or locked. */
  #look(): void {
    const { parent } = this;
    this.#onScreen = this.now('shown') !== false && (parent === null || parent.onScreen);
    this.#editable =
      this.now('locked') !== true && !this.scriptOnly && (parent === null || parent.editable);
    this.#lookedAt = this.nesting.version;
  }

  get scriptOnly(): boolean {
    return this.sort === 'field' && this.field.scriptOnly === true;
  }

  /** How people know it. */
  get label(): string {
    const { definition, row } = this;
    if (this.sort === 'row') return `Row ${row!.index + 1} of ${this.parent!.label}`;
    const own =
      (this.aspects.label?.current as string | undefined) ??
      ('label' in definition ? definition.label : definition.title);
    return row === null ? own : `${own} in row ${row.index + 1} of ${row.rows.field.label}`;
  }

  /** How steps and scenarios name it now: rows by their place, from 0. */
  get address(): string {
    const { row } = this;
    if (row === null) return this.name;
    const place = `${row.rows.field.name}[${row.index}]`;
    return this.sort === 'row' ? place : `${place}.${this.field.name}`;
  }

  /** What of the part itself can change; a row keeps its values. */
  checkpoint(): Restore {
    const kept = new Map(
      (Object.values(this.aspects) as Aspect[]).map((aspect) => [aspect, aspect.checkpoint()]),
    );
    // Whoever reports next makes a copy of what is frozen.
    const told = Object.freeze(this.told);
    const rows = this.rows?.checkpoint();
    return () => {
      for (const aspect of Object.values(this.aspects) as Aspect[]) {
        const restore = kept.get(aspect);
        if (restore === undefined) aspect.reset(this.#baseOf(aspect.name));
        else restore();
      }
      this.told = told;
      rows?.();
    };
  }

  /** Forgets all that was said, as if the form had just been made. */
  reset(): void {
    for (const aspect of Object.values(this.aspects) as Aspect[])
      aspect.reset(this.#baseOf(aspect.name));
    this.rows?.clear();
  }
}

/** What is computed for a sort of part besides what can be said of it, and the value that a field begins with. */
const BESIDES: Partial<Record<PartSort, (definition: Definition) => Bases>> = {
  form: () => ({ changed: false }),
  field: (definition) => ({ value: emptyOf(definition as Field) }),
};

/** A row has no definition of its own. */
export const ROW_BASES: Bases = deepFreeze({ ...basesBy('row', {}), values: null });

/** By definition, since a form is opened again and again. */
const known = new WeakMap<Definition, Bases>();

export function basesOf(sort: PartSort, definition: Definition): Bases {
  const found = known.get(definition);
  if (found !== undefined) return found;
  const bases = deepFreeze({
    ...basesBy(sort, definition as Defined),
    ...BESIDES[sort]?.(definition),
  });
  known.set(definition, bases);
  return bases;
}
