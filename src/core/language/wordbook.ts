/**
 * The names and keys of a form with what people read for them, for completions and for guessing what a misspelt name
 * meant.
 */
import type { Option } from '../form/definition';
import { cellsOf, fieldsOf, sectionsOf } from '../form/fields';
import { indexOf } from '../form/table-index';
import type { Surface } from './typings';
import { kindInWords } from '../form/traits';

/** Lists of keys longer than this are not searched for labels at each keystroke. */
const MOST_KEYS = 2000;

export class Wordbook {
  readonly #names = new Map<string, Map<string, string>>();
  readonly #cells = new Map<string, string>();
  readonly #columns = new Map<string, string>();
  readonly #optionLists: readonly (readonly Option[])[];

  constructor({ form, tables, services, roles }: Surface) {
    const titled = (parts: readonly { name: string; title: string }[]) =>
      new Map(parts.map(({ name, title }) => [name, title]));
    this.#names.set(
      'fields',
      new Map(
        fieldsOf(form).map((field) => [field.name, `${field.label} · ${kindInWords(field)}`]),
      ),
    );
    this.#names.set('sections', titled(sectionsOf(form)));
    this.#names.set('pages', titled(form.pages));
    this.#names.set('tracks', titled(form.tracks ?? []));
    this.#names.set(
      'buttons',
      new Map((form.buttons ?? []).map(({ name, label }) => [name, label])),
    );
    this.#names.set('tables', titled(tables));
    this.#names.set('services', titled(services));
    for (const field of fieldsOf(form))
      for (const cell of cellsOf(field))
        this.#cells.set(cell.name, `${cell.label} · ${kindInWords(cell)}`);
    for (const table of tables)
      for (const { name, kind } of table.columns)
        this.#columns.set(name, `column of ${table.title} · ${kind.replace('_', '/')}`);
    const fields = fieldsOf(form).flatMap((field) => [field, ...cellsOf(field)]);
    this.#optionLists = [
      ...fields.flatMap((field) =>
        field.kind === 'choice' || field.kind === 'choices' ? [field.options] : [],
      ),
      ...(form.tracks ?? []).map(({ stages }) => stages),
      roles,
      ...tables.map((table) => indexOf(table).options),
    ].filter(({ length }) => length > 0 && length <= MOST_KEYS);
  }

  /** The names that stand under a global such as `fields`. */
  names(owner: string): Iterable<string> {
    return this.#names.get(owner)?.keys() ?? [];
  }

  /** The name of the part whose label reads like this. */
  byLabel(owner: string, spelled: string): string | null {
    const like = (text: string) =>
      text
        .split(' · ')[0]!
        .toLowerCase()
        .replace(/[^a-z0-9]/g, '');
    return (
      [...(this.#names.get(owner) ?? [])].find(([, label]) => like(label) === like(spelled))?.[0] ??
      null
    );
  }

  /** What people read for each completion, given the text before it. */
  detailsOf(
    before: string,
    entries: readonly { name: string; isKey: boolean }[],
  ): (string | null)[] {
    const list = entries.some(({ isKey }) => isKey) ? this.#listOf(entries) : null;
    const member = /(?:\b(\w+)|[)\]])\??\.\w*$/.exec(before)?.[1];
    const names = member === undefined ? undefined : this.#names.get(member);
    return entries.map(({ name, isKey }) => {
      if (isKey) return list?.get(name) ?? null;
      if (names !== undefined && !/\.\s*fields\.\w*$/.test(before)) return names.get(name) ?? null;
      if (member === 'fields' || member === 'each') return this.#cells.get(name) ?? null;
      return member === 'row' ? (this.#columns.get(name) ?? null) : null;
    });
  }

  /** The labels of the list of options that the keys offered come from. */
  #listOf(entries: readonly { name: string; isKey: boolean }[]): Map<string, string> | null {
    const keys = entries.flatMap(({ name, isKey }) => (isKey ? [name] : []));
    const fitting = this.#optionLists.filter((list) =>
      keys.every((key) => list.some((option) => option.key === key)),
    );
    const best = fitting.toSorted((a, b) => a.length - b.length)[0];
    return best === undefined ? null : new Map(best.map(({ key, label }) => [key, label]));
  }
}
