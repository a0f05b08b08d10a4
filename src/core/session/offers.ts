/** What fields of keys offer: the rows of tables, and the options that scripts set or the definition has. */
import type { Field, Option } from '../form/definition';
import { definedOptions, type ReadingContext } from '../form/reading';
import type { Table } from '../form/table';
import { indexOf, type TableIndex } from '../form/table-index';
import { holdsKeys } from '../form/traits';
import type { Value } from '../form/value';
import type { Part } from './parts';

export class Offers {
  readonly #tables: ReadonlyMap<string, TableIndex>;

  constructor(tables: readonly Table[]) {
    this.#tables = new Map(tables.map((table) => [table.name, indexOf(table)]));
  }

  /** A row of reference data; null for a table or key that is not there. */
  row(table: string, key: string): object | null {
    return this.#tables.get(table)?.find(key) ?? null;
  }

  /** The option that a row stands for, whichever table it is of; null for what is no row. */
  optionOfRow(item: object): Option | null {
    for (const table of this.#tables.values()) {
      const row = table.find(String((item as Record<string, unknown>)[table.table.key]));
      if (row === item) return table.optionOf(row);
    }
    return null;
  }

  table(name: string): TableIndex {
    return this.#tables.get(name)!;
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
}
