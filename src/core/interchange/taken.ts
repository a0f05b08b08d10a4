/** What comes in from an open format: a form with behaviours, and what could not be taken. */
import {
  FormSchema,
  type CellField,
  type Field,
  type Form,
  type Section,
} from '../form/definition';
import { definitionErrors } from '../form/integrity';
import { freeName, isName, slugOf } from '../form/name';
import type { Source } from '../script/header';

export interface TakenForm {
  form: Form;
  behaviours: Source[];
  /** What could not be taken, in words, each with the place it stands at. */
  notes: string[];
}

/** What came is no form: said in words. */
export class NothingToTake extends Error {}

/** A field on the way, before it has a name that no other has. */
export type Drafted = {
  [K in Field['kind']]: Omit<Extract<Field, { kind: K }>, 'name'>;
}[Field['kind']];

/** Gives names that are technical and not taken. */
export class Names {
  readonly #taken = new Set<string>();
  readonly #last = new Map<string, number>();

  /** A name as near as can be to what it was called. */
  next(called: string, fallback: string): string {
    const stem = isName(called) ? called : slugOf(called, '_').replace(/^\d+_?/, '') || fallback;
    const wanted = isName(stem) ? stem : fallback;
    let name = wanted;
    // Where many are called the same, the number goes on from the last one.
    for (let i = this.#last.get(wanted) ?? 1; this.#taken.has(name); name = `${wanted}_${i}`)
      this.#last.set(wanted, ++i);
    this.#taken.add(name);
    return name;
  }
}

/** A label for what has none: its name in words. */
export function labelFrom(name: string): string {
  const words = name
    .replace(/([a-z\d])([A-Z])/g, '$1 $2')
    .replace(/[_\-.[\]]+/g, ' ')
    .trim()
    .toLowerCase();
  return words === '' ? name : words[0]!.toUpperCase() + words.slice(1);
}

export const shortened = (text: string) => text.replace(/\s+/g, ' ').trim().slice(0, 400);

/** The form of the sections that came. Throws NothingToTake where they hold no field, or hold what a form cannot. */
export function formOf(title: string, sections: readonly Section[]): Form {
  const held = sections.filter(({ fields }) => fields.length > 0);
  if (held.length === 0) throw new NothingToTake('It has no field that a form could have.');
  const names = new Set(held.map(({ name }) => name));
  const read = FormSchema.safeParse({
    name: 'taken',
    title: shortened(title) || 'Form',
    pages: [
      {
        name: freeName(
          'first_page',
          new Set([...names, ...held.flatMap(({ fields }) => fields.map(({ name }) => name))]),
          '_',
        ),
        title: shortened(title) || 'Form',
        sections: held,
      },
    ],
  });
  if (!read.success)
    throw new NothingToTake(
      read.error.issues
        .slice(0, 5)
        .map(({ path, message }) => `${path.join('.')}: ${message}`)
        .join('\n'),
    );
  const [error] = definitionErrors(read.data, []);
  if (error !== undefined) throw new NothingToTake(`${error.path.join('.')}: ${error.says}`);
  return read.data;
}

/** A field without what is undefined, which a definition does not hold. */
export function fieldFrom<F extends Field | CellField>(field: object): F {
  return Object.fromEntries(Object.entries(field).filter(([, value]) => value !== undefined)) as F;
}
