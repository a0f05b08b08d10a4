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

export function definitionOf(form: Form, part: string): Field | undefined {
  const [name, cell] = columnOf(part).split('.');
  const field = fieldsOf(form).find((one) => one.name === name);
  return field === undefined || cell === undefined
    ? field
    : cellsOf(field).find((one) => one.name === cell);
}

/** The section and page that each field and section stands in, the nearest first. */
export function containersOf(form: Form): ReadonlyMap<string, readonly string[]> {
  const around = new Map<string, string[]>();
  for (const page of form.pages)
    for (const section of page.sections) {
      around.set(section.name, [page.name]);
      for (const field of section.fields) around.set(field.name, [section.name, page.name]);
    }
  for (const { name, section } of form.buttons ?? [])
    if (section !== undefined) around.set(name, [section, ...(around.get(section) ?? [])]);
  return around;
}
