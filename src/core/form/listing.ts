/** Lists of records: which fields are their columns, and how each is narrowed down. */
import type { Field, Form } from './definition';
import { fieldsOf } from './fields';
import { traitsOf } from './traits';

/** As many columns as a page of usual width has room for. */
const COLUMNS = 7;

/** The fields by which people tell records apart: the first that are shown and fit into a line. */
export function listedFields(form: Form): Field[] {
  return fieldsOf(form)
    .filter(
      (field) =>
        field.hidden !== true &&
        traitsOf(field).narrowed !== null &&
        !(field.kind === 'text' && (field.lines ?? 1) > 1),
    )
    .slice(0, COLUMNS);
}

/** How a column is narrowed down: to one of its options, to a range, or to what contains a text. */
export function narrowedBy(field: Field): 'option' | 'range' | 'text' {
  return traitsOf(field).narrowed ?? 'text';
}
