/** What has to be looked at again because of what changed: rules that read it, and parts whose state may be told anew. */
import type { Aspect } from './aspects';
import type { Part } from './parts';
import type { Row } from './rows';
import { Stirred } from './stirred';
import type { Rule } from './tie';
import type { Parts } from './tree';

export class Outdated {
  /** Rules that read something which was touched; whether it really differs is asked at their turn. */
  readonly rules = new Stirred();
  /** The same of invariants, which have their turn when no rule is left. */
  readonly invariants = new Stirred();
  /** Parts whose state may differ from what was reported. */
  readonly parts = new Set<Part>();

  constructor(private readonly all: Parts) {}

  /** Nothing has to be looked at any more. */
  forget(): void {
    this.rules.clear();
    this.invariants.clear();
    this.parts.clear();
  }

  /** It runs at its turn. */
  add(rule: Rule): void {
    this.#waiting(rule).add(rule);
  }

  /** It has had its turn, or is gone. */
  delete(rule: Rule): void {
    this.#waiting(rule).delete(rule);
  }

  #waiting({ sort }: Rule): Stirred {
    return sort === 'rule' ? this.rules : this.invariants;
  }

  /** Rules that read an aspect run again, if it differs at their turn. */
  stirReaders(aspect: Aspect): void {
    if (aspect.readers !== null) for (const rule of aspect.readers) this.add(rule);
  }

  /** An aspect changed: whoever read it, and whatever is shown or hidden with it. */
  stir(aspect: Aspect): void {
    this.stirReaders(aspect);
    const nests = aspect.name === 'shown' || aspect.name === 'locked';
    if (nests) this.all.nesting.version++;
    this.#touchWithin(aspect.part, nests);
  }

  #touchWithin(part: Part, nests: boolean): void {
    if (part.row?.removed === true) return;
    this.parts.add(part);
    if (!nests) return;
    for (const child of part.children ?? []) this.#touchWithin(child, true);
    // Whether cells are on screen follows from what they stand in; only those that are cleared have to be looked at.
    if (part.rows !== null) for (const row of part.rows.list) this.#touchCleared(row);
    else if (part.sort === 'row') this.#touchCleared(part.row!);
  }

  #touchCleared(row: Row): void {
    for (const [name, { field }] of row.rows.columns)
      if (field.whenHidden === 'clear') this.parts.add(row.rows.cell(row, name));
  }
}
