/** The fields of a definition. Without the schemas, which pages have no use for. */
import type { Field, Form, Section } from './definition';

/** The fields of a form in the order of the definition. */
export function fieldsOf(form: Form): Field[] {
  return form.pages.flatMap((page) => page.sections.flatMap((section) => section.fields));
}

/** The sections of a form in the order of the definition. */
export function sectionsOf(form: Form): Section[] {
  return form.pages.flatMap((page) => page.sections);
}

/** The fields of a rows field; none for others. */
export function cellsOf(field: Field): readonly Field[] {
  return field.kind === 'rows' ? field.fields : [];
}

/** Whether records of a form list those of another one as their children. */
export function listsChildren({ children }: Form, form: string): boolean {
  return children?.some((list) => list.form === form) === true;
}
