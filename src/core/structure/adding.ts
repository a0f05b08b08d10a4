/** New parts: where they go, and what they are at first. What is added is a kind of field, or `@section` and its like. */
import type { FieldKind, Form } from '../form/definition';
import {
  nameFor,
  namesTaken,
  newField,
  placeOf,
  type Definition,
  type PartName,
  type PartSort,
} from './edit';

/** Another form with its fields, whose records a list can show. */
export interface OtherForm {
  name: string;
  title: string;
  fields: readonly { key: string; label: string }[];
}

/** The list a new part goes to, and its place there. */
export function targetFor(
  form: Form,
  selected: PartName | null,
  what: string,
): { sort: PartSort; into: PartName | null; at: number } {
  const place = selected === null ? null : placeOf(form, selected);
  const end = Number.MAX_SAFE_INTEGER;
  if (what === '@page')
    return { sort: 'page', into: null, at: place?.sort === 'page' ? place.at + 1 : end };
  if (what === '@button') return { sort: 'button', into: null, at: end };
  if (what === '@track') return { sort: 'track', into: null, at: end };
  if (what === '@list') return { sort: 'list', into: null, at: end };
  if (what === '@section') {
    if (place?.sort === 'section') return { sort: 'section', into: place.into, at: place.at + 1 };
    return {
      sort: 'section',
      into: place?.sort === 'page' ? selected : form.pages.at(-1)!.name,
      at: end,
    };
  }
  if (place?.sort === 'cell') return { sort: 'cell', into: place.into, at: place.at + 1 };
  if (
    place?.sort === 'field' &&
    'kind' in place.definition &&
    place.definition.kind === 'rows' &&
    what !== 'rows'
  )
    return { sort: 'cell', into: selected, at: end };
  if (place?.sort === 'field') return { sort: 'field', into: place.into, at: place.at + 1 };
  return {
    sort: 'field',
    into: place?.sort === 'section' ? selected : form.pages.at(-1)!.sections.at(-1)!.name,
    at: end,
  };
}

/** A list of the first other form's records; which form and by which field is chosen after. */
function listFor(others: readonly OtherForm[], name: string, title: string): Definition | null {
  const other = others.find(({ fields }) => fields.length > 0);
  const field = other?.fields[0];
  return other === undefined || field === undefined
    ? null
    : { name, title, form: other.name, field: field.key, launch: field.key, columns: [field.key] };
}

export function newDefinition(
  form: Form,
  what: string,
  name: string,
  label: string,
  table: string | null,
  others: readonly OtherForm[],
): Definition | null {
  switch (what) {
    case '@list':
      return listFor(others, name, label);
    case '@page': {
      const section = nameFor(
        `${name} part`,
        new Set([...namesTaken(form, { sort: 'page', into: null }), name]),
      );
      return { name, title: label, sections: [{ name: section, title: label, fields: [] }] };
    }
    case '@section':
      return { name, title: label, fields: [] };
    case '@button':
      return { name, label };
    case '@track':
      return { name, title: label, stages: [{ key: 'first', label: 'First' }] };
    default:
      // Without a table there is nothing a reference could refer to; the tables page adds one.
      return what === 'reference' && table === null
        ? null
        : newField(what as FieldKind, name, label, table);
  }
}
