/**
 * The numbers by which parts are named on the wire. Parts of the form have theirs from the start, in the order of the
 * form; a row gets its own and one for each of its cells when it is first named. Every number that comes from scripts
 * is looked up here, so that one made up is found out.
 */
import type { Part } from '../session/parts';
import type { Row } from '../session/rows';
import type { Parts } from '../session/tree';

export class Numbers {
  readonly #parts: (Part | undefined)[];
  /** The row behind a number that is a row's. */
  readonly #rows = new Map<number, Row>();
  readonly #ofRow = new Map<Row, number>();
  readonly #ofPart = new Map<Part, number>();
  #next: number;

  constructor({ byName }: Parts) {
    this.#parts = [...byName.values()];
    this.#parts.forEach((part, number) => this.#ofPart.set(part!, number));
    this.#next = this.#parts.length;
  }

  /** The part of a number; null when there is none. */
  part(number: number): Part | null {
    return this.#parts[number] ?? this.#cell(number);
  }

  /** Cells become parts when somebody first asks for them. */
  #cell(number: number): Part | null {
    if (!(number >= 0 && number < this.#next)) return null;
    let at = number;
    while (!this.#rows.has(at)) at--;
    const row = this.#rows.get(at)!;
    return (this.#parts[number] = row.rows.cell(row, row.rows.columnNames[number - at - 1]!));
  }

  row(number: number): Row | null {
    return this.#rows.get(number) ?? null;
  }

  numberOfRow(row: Row): number {
    const known = this.#ofRow.get(row);
    if (known !== undefined) return known;
    const number = this.#next;
    this.#next += 1 + row.rows.columns.size;
    this.#ofRow.set(row, number);
    this.#rows.set(number, row);
    this.#parts[number] = row.part;
    return number;
  }

  numberOf(part: Part): number {
    const { row } = part;
    if (row === null) return this.#ofPart.get(part)!;
    const number = this.numberOfRow(row);
    return part.sort === 'row' ? number : number + 1 + row.rows.columns.get(part.field.name)!.at;
  }
}
