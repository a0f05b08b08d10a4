/** What is known of expressions while a source is read, put together and kept by name. */
import type { Bound, Known, Mark, PartPath, Scope } from './acts';

export const NO_MARKS: ReadonlySet<Mark> = new Set();
export const NOTHING: Known = {
  parts: [],
  alias: null,
  reads: [],
  marks: NO_MARKS,
  thing: null,
  items: null,
  item: null,
  run: null,
  source: null,
};

export const known = (more: Partial<Known>): Known => ({ ...NOTHING, ...more });

/** What is known where it may be any of these. */
export function either(all: readonly Known[]): Known {
  if (all.length === 1) return all[0]!;
  const items =
    all[0]?.items?.length !== undefined &&
    all.every(({ items }) => items?.length === all[0]!.items!.length)
      ? all[0].items.map((_, i) => either(all.map(({ items }) => items![i]!)))
      : null;
  return {
    parts: all.flatMap(({ parts }) => parts),
    alias: null,
    reads: all.flatMap(({ reads }) => reads),
    marks: all.some(({ marks }) => marks.size > 0)
      ? new Set(all.flatMap(({ marks }) => [...marks]))
      : NO_MARKS,
    thing:
      all.length > 0 && all.every(({ thing }) => thing !== null && thing.is === 'row')
        ? all[0]!.thing
        : null,
    items,
    item: null,
    run: null,
    source: null,
  };
}

/** What follows from others and is none of them. */
export const derived = (all: readonly Known[]): Known => ({
  ...either([NOTHING, ...all]),
  parts: [],
  items: null,
  thing: null,
});

/** What is known of an item of a list. */
export function itemOf(list: Known): Known {
  if (list.alias !== null && list.item === null)
    return { ...derived([list]), alias: { ...list.alias, spelled: 'item' } };
  return (
    list.item ??
    (list.items === null
      ? derived([list])
      : either(list.items.length === 0 ? [NOTHING] : list.items))
  );
}

/** The parts something may be, a row among them. */
export function partsOrRow(of: Known): PartPath[] {
  return of.thing?.is === 'row' ? [`${of.thing.field}#`] : of.parts.map(({ part }) => part);
}

/** Names and what is known of them, by the block they are declared in. */
export class Env implements Scope {
  readonly #names = new Map<string, Bound>();
  constructor(private readonly outer: Scope | null) {}
  get(name: string): Bound | null {
    return this.#names.get(name) ?? this.outer?.get(name) ?? null;
  }
  set(name: string, bound: Bound): void {
    this.#names.set(name, bound);
  }
  widen(name: string, value: Known): void {
    const bound = this.#names.get(name);
    if (bound === undefined) this.outer?.widen(name, value);
    else this.#names.set(name, { ...bound, known: either([bound.known, value]) });
  }
}
