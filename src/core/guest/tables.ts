/** Reference data as scripts have it: frozen rows, found by key. */
import type { GuestMaterial } from '../wire/acts';
import { deepFreeze } from '../form/value';

export interface Tables {
  readonly face: object;
  find(table: string, key: string): object | null;
  /** The table and key of one of its rows; null for anything else. */
  rowOf(value: object): readonly [string, string] | null;
}

export function makeTables(given: GuestMaterial['tables']): Tables {
  const known = new WeakMap<object, readonly [string, string]>();
  const byKey = new Map<string, Map<string, object>>();
  const faces: Record<string, object> = Object.create(null) as never;
  for (const { name, key, rows } of given) {
    deepFreeze(rows);
    const index = new Map<string, object>();
    for (const row of rows) {
      const its = String(row[key]);
      index.set(its, row);
      known.set(row, [name, its]);
    }
    byKey.set(name, index);
    faces[name] = Object.freeze({
      rows,
      find: (wanted: unknown) =>
        wanted === null || wanted === undefined ? null : (index.get(String(wanted)) ?? null),
    });
  }
  return {
    face: Object.freeze(faces),
    find: (table, key) => byKey.get(table)?.get(key) ?? null,
    rowOf: (value) => known.get(value) ?? null,
  };
}
