/** The parts of a form as scenarios spell them. */
import type { Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';

const known = new WeakMap<Form, Set<string>>();

/** All parts, with `[]` for the place of a row. */
export function addressesOf(form: Form): ReadonlySet<string> {
  const before = known.get(form);
  if (before !== undefined) return before;
  const all = new Set<string>();
  for (const page of form.pages) {
    all.add(page.name);
    for (const section of page.sections) all.add(section.name);
  }
  for (const field of fieldsOf(form)) {
    all.add(field.name);
    if (field.kind !== 'rows') continue;
    all.add(`${field.name}[]`);
    for (const cell of cellsOf(field)) all.add(`${field.name}[].${cell.name}`);
  }
  for (const button of form.buttons ?? []) all.add(button.name);
  for (const track of form.tracks ?? []) all.add(track.name);
  known.set(form, all);
  return all;
}
