/** Lists of records: which fields are their columns, and how each is sorted and narrowed down. */
import type { Field, Form } from './definition';
import { fieldsOf } from './fields';

/** As many columns as a page of usual width has room for. */
const COLUMNS = 7;

/** The fields by which people tell records apart: the first that are shown and fit into a line. */
export function listedFields(form: Form): Field[] {
  return fieldsOf(form)
    .filter(
      (field) =>
        field.hidden !== true &&
        field.kind !== 'rows' &&
        field.kind !== 'file' &&
        !(field.kind === 'text' && (field.lines ?? 1) > 1),
    )
    .slice(0, COLUMNS);
}

/** Whether values of a field are compared as numbers; all others are as texts, which dates and times are too. */
export function sortsAsNumber(field: Field): boolean {
  return field.kind === 'number' || field.kind === 'money';
}

/** How a column is narrowed down: to one of its options, to a range, or to what contains a text. */
export function narrowedBy(field: Field): 'option' | 'range' | 'text' {
  if (
    field.kind === 'choice' ||
    field.kind === 'choices' ||
    field.kind === 'reference' ||
    field.kind === 'yes_no'
  )
    return 'option';
  return sortsAsNumber(field) ||
    field.kind === 'date' ||
    field.kind === 'datetime' ||
    field.kind === 'time'
    ? 'range'
    : 'text';
}
