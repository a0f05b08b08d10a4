/** How steps and scenarios name what stands in rows: `cargo[0]` is a row by its place, `cargo[0].weight` a cell of it. */

export interface RowAddress {
  rows: string;
  /** From 0. */
  place: number;
  /** Null for the row itself. */
  cell: string | null;
}

const ROW = /^([a-z][a-z0-9_]*)\[(\d+)\](?:\.([a-z][a-z0-9_]*))?$/;

/** Reads the address of a row or cell; null for any other, such as `draught`. */
export function readRowAddress(address: string): RowAddress | null {
  const match = ROW.exec(address);
  return match === null
    ? null
    : { rows: match[1]!, place: Number(match[2]), cell: match[3] ?? null };
}
