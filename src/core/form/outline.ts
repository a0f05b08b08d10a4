/** The fields of a form by their column, and what each field, section and button stands in. */
import type { Field, Form } from './definition';
import { cellsOf, fieldsOf } from './fields';

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
  const containers = new Map<string, readonly string[]>();
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

/** The field of this name, or of `goods.weight` for a cell of rows. */
export function fieldAt(form: Form, column: string): Field | undefined {
  return outlineOf(form).fields.get(column);
}

/** What a field, section or button stands in, the nearest first: its section, its page. */
export function containersOf(form: Form, name: string): readonly string[] {
  return outlineOf(form).containers.get(name) ?? [];
}
