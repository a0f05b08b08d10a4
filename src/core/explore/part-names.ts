/** Parts as findings compare them: a cell by its column, whatever row it is in. */
import type { Field, Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';

/** `goods.weight` for `goods[0].weight` and `goods#7.weight`, `goods` for the row `goods[0]`. */
export function columnOf(part: string): string {
  return part.replace(/\[\d+\]|#\d+/g, '');
}

/** The field that a part stands in: `goods` for `goods[0].weight`. */
export function wholeOf(part: string): string {
  return columnOf(part).split('.')[0]!;
}

/** The fields of a form by their column, and what each field, section and button stands in, the nearest first. */
interface Outline {
  fields: ReadonlyMap<string, Field>;
  containers: ReadonlyMap<string, readonly string[]>;
}

/** Every comparison of two sessions asks for them, for every part. */
const outlines = new WeakMap<Form, Outline>();

function outlineOf(form: Form): Outline {
  const known = outlines.get(form);
  if (known !== undefined) return known;
  const fields = new Map<string, Field>();
  for (const field of fieldsOf(form)) {
    fields.set(field.name, field);
    for (const cell of cellsOf(field)) fields.set(`${field.name}.${cell.name}`, cell);
  }
  const containers = new Map<string, string[]>();
  for (const page of form.pages)
    for (const section of page.sections) {
      containers.set(section.name, [page.name]);
      for (const field of section.fields) containers.set(field.name, [section.name, page.name]);
    }
  for (const { name, section } of form.buttons ?? [])
    if (section !== undefined) containers.set(name, [section, ...(containers.get(section) ?? [])]);
  const outline = { fields, containers };
  outlines.set(form, outline);
  return outline;
}

export function definitionOf(form: Form, part: string): Field | undefined {
  return outlineOf(form).fields.get(columnOf(part));
}

/** What a part stands in, the nearest first. */
export function containersOf(form: Form, part: string): readonly string[] {
  return outlineOf(form).containers.get(part) ?? [];
}
