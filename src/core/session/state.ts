/**
 * The state of a session: every aspect of every part, changed only through the three writes below, each of which can
 * be undone. It knows which rules a change concerns and which parts to tell the outside about; running scripts is
 * `runs.ts`.
 */
import type { Option } from '../form/definition';
import type { Surroundings } from '../form/kinds';
import type { Form } from '../form/definition';
import { indexTable, type TableIndex } from '../form/table-index';
import type { Table } from '../form/table';
import { deepFreeze, equal, type Value } from '../form/value';
import { partsOf, type Aspect, type Part, type Parts, type RunRecord } from './parts';
import type { Rule } from './ties';

export class State {
  readonly parts: Parts;
  readonly tables = new Map<string, TableIndex>();
  /** Rules that read something which was touched; whether it really differs is asked at their turn. */
  readonly stirred = new Set<Rule>();
  /** Parts whose state may differ from what was told. */
  readonly touched = new Set<Part>();
  /** The values as opened or saved, against which `changed` is judged. */
  readonly initial = new Map<Part, Value>();
  /** Fields whose value came with the record and is not offered (semantics 6). */
  readonly orphans = new Set<Part>();
  /** What a record brought that is no value of its field's kind any more: empty for scripts, saved again as it is (edges 3). */
  readonly strays = new Map<Part, Value>();
  /** Faults found by the last check, by field, until mended; those a script stopped at stay until the value changes. */
  readonly faults = new Map<Part, { says: string; byScript: boolean }>();
  readonly #differing = new Set<Part>();
  /** Undoes what scripts did in this step, newest last. */
  #journal: (() => void)[] = [];

  constructor(form: Form, tables: readonly Table[]) {
    this.parts = partsOf(form);
    for (const table of tables) {
      for (const row of table.rows) deepFreeze(row);
      this.tables.set(table.name, indexTable(table));
    }
  }

  table(name: string): TableIndex {
    return this.tables.get(name)!;
  }

  surroundings(part: Part): Surroundings {
    return { options: part.aspects.options!.current as readonly Option[] | null, table: (name) => this.table(name) };
  }

  /** The options of a choice or reference as seen now: those a script set, else those of the definition. */
  optionsOf(part: Part, set: Value): readonly Option[] | null {
    if (set !== null) return set as unknown as readonly Option[];
    const { field } = part;
    if (field.kind === 'choice') return field.options;
    if (field.kind === 'reference') return this.table(field.table).options;
    return null;
  }

  isOffered(part: Part, value: Value): boolean {
    if (value === null) return true;
    const set = part.aspects.options!.current as readonly Option[] | null;
    const { field } = part;
    // A reference with all its rows on offer is asked by key, not by walking ten thousand options.
    if (set === null && field.kind === 'reference') return this.table(field.table).find(String(value)) !== null;
    const options = this.optionsOf(part, set);
    return options === null || options.some((option) => option.key === value);
  }

  get changed(): boolean {
    return this.#differing.size > 0;
  }

  /** Writes a value slot. `by` is the run to blame, or null for persons and the form. */
  setValue(aspect: Aspect, value: Value, by: RunRecord | null): void {
    const { part, base: before, changedBy } = aspect;
    const wasOrphan = this.orphans.has(part);
    const fault = this.faults.get(part);
    const stray = this.strays.get(part);
    this.#journal.push(() => {
      aspect.base = before;
      aspect.changedBy = changedBy;
      if (wasOrphan) this.orphans.add(part);
      if (fault !== undefined) this.faults.set(part, fault);
      if (stray !== undefined) this.strays.set(part, stray);
      this.#stir(aspect);
      this.#judgeChanged(part);
    });
    aspect.base = value;
    aspect.changedBy = by;
    this.orphans.delete(part);
    this.strays.delete(part);
    if (fault?.byScript) this.faults.delete(part);
    this.#stir(aspect);
    this.#judgeChanged(part);
  }

  /** Puts a handler's word, or takes it back with undefined. */
  setHandlerWord(aspect: Aspect, value: Value | undefined, by: RunRecord): void {
    const { handlerWord: before, changedBy } = aspect;
    this.#journal.push(() => {
      aspect.handlerWord = before;
      aspect.changedBy = changedBy;
      this.#stir(aspect);
    });
    aspect.handlerWord = value === undefined ? null : { value };
    aspect.changedBy = by;
    this.#stir(aspect);
  }

  /** Puts a rule's word, or takes it back with null. */
  setRuleWord(aspect: Aspect, rule: Rule, word: { value: Value; line: number } | null, by: RunRecord): void {
    const { ruleWords: before, changedBy } = aspect;
    this.#journal.push(() => {
      aspect.ruleWords = before;
      aspect.changedBy = changedBy;
      this.#stir(aspect);
    });
    aspect.ruleWords = aspect.withWord(rule, word);
    aspect.changedBy = by;
    this.#stir(aspect);
  }

  /** Notes how to undo something that is not an aspect, such as what a rule remembers. */
  undoable(undo: () => void): void {
    this.#journal.push(undo);
  }

  /** A point to go back to with `rollBack`. */
  mark(): number {
    return this.#journal.length;
  }

  /** Undoes everything since the mark. */
  rollBack(mark: number): void {
    while (this.#journal.length > mark) this.#journal.pop()!();
  }

  /** The step is over: nothing of it will be undone. */
  forget(): void {
    this.#journal = [];
  }

  /** Values as now are the record's: nothing is changed. */
  rebase(): void {
    for (const part of this.parts.fields) this.initial.set(part, part.aspects.value!.base);
    this.#differing.clear();
    this.#setChanged(false);
  }

  touch(part: Part): void {
    this.touched.add(part);
  }

  #stir(aspect: Aspect): void {
    for (const rule of aspect.readers) this.stirred.add(rule);
    const nests = aspect.name === 'shown' || aspect.name === 'locked';
    if (nests) this.parts.nesting.version++;
    this.#touchWithin(aspect.part, nests);
  }

  #touchWithin(part: Part, nests: boolean): void {
    this.touched.add(part);
    if (nests) for (const child of part.children) this.#touchWithin(child, true);
  }

  #judgeChanged(part: Part): void {
    const before = this.#differing.size > 0;
    if (equal(part.aspects.value!.base, this.initial.get(part) ?? null)) this.#differing.delete(part);
    else this.#differing.add(part);
    if (before !== this.#differing.size > 0) this.#setChanged(!before);
  }

  #setChanged(changed: boolean): void {
    const aspect = this.parts.form.aspects.changed!;
    aspect.base = changed;
    this.#stir(aspect);
  }
}
