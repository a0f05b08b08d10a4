/** A table with its rows found by key, as sessions and kinds use it. */
import type { Option } from './definition';
import type { TableRow, Table } from './table';
import { deepFreeze } from './value';

export interface TableIndex {
  readonly table: Table;
  readonly rows: readonly TableRow[];
  find(key: string): TableRow | null;
  /** Every row as an option: its key, and its label column. */
  readonly options: readonly Option[];
  optionOf(row: TableRow): Option;
}

const kept = new WeakMap<Table, TableIndex>();

/** The index of a table, made once as long as the table is around. */
export function indexOf(table: Table): TableIndex {
  let index = kept.get(table);
  if (index === undefined) kept.set(table, (index = indexTable(table)));
  return index;
}

/** Builds the index on first use of each part of it, since most sessions look at few tables. Scripts get rows as they are, so nobody changes them from now on. */
export function indexTable(table: Table): TableIndex {
  for (const row of table.rows) deepFreeze(row);
  let byKey: Map<string, TableRow> | undefined;
  let options: readonly Option[] | undefined;
  const optionOf = (row: TableRow): Option =>
    Object.freeze({
      key: String(row[table.key]),
      label: String(row[table.label] ?? row[table.key]),
    });
  return {
    table,
    rows: table.rows,
    find(key) {
      byKey ??= new Map(table.rows.map((row) => [String(row[table.key]), row]));
      return byKey.get(key) ?? null;
    },
    get options() {
      return (options ??= Object.freeze(table.rows.map(optionOf)));
    },
    optionOf,
  };
}
