/**
 * Editing the structure of a form: adding, removing, moving and changing parts. Each edit gives a new definition and
 * leaves the former as it was, so that undo is going back to it. Renaming, which reaches beyond the form, is `rename.ts`.
 */
import { freeName, slugOf } from '../form/name';
import type {
  Button,
  CellField,
  ChildList,
  Field,
  FieldKind,
  Form,
  Page,
  Section,
  Track,
} from '../form/definition';

/** A part by its name; the cell of a rows field as `rows.cell`. */
export type PartName = string;

export type PartSort = 'page' | 'section' | 'field' | 'cell' | 'button' | 'track' | 'list';
export type Definition = Page | Section | Field | CellField | Button | Track | ChildList;

export type Edit =
  /** `into` names the page of a section, the section of a field, the rows field of a cell; the form itself is null. */
  | { do: 'add'; sort: PartSort; into: PartName | null; at: number; definition: Definition }
  | { do: 'remove'; part: PartName }
  | { do: 'move'; part: PartName; into: PartName | null; at: number }
  /** Keys that are undefined are taken out. Names are changed by renaming. */
  | { do: 'change'; part: PartName; to: Readonly<Record<string, unknown>> }
  /** The title of the form, its settings, its launch parameters (undefined takes them out). */
  | { do: 'changeForm'; title?: string; settings?: Form['settings']; launch?: Form['launch'] };

/** An edit that cannot be done, with the reason. */
export class InvalidEdit extends Error {}

/** Where a part stands: in which list, and at which place. */
export interface PartPlace {
  sort: PartSort;
  into: PartName | null;
  at: number;
  definition: Definition;
}

type List = Definition[];

/** Every part in the order of the definition, with the list it stands in. */
function* lists(form: Form): Iterable<{ sort: PartSort; into: PartName | null; list: List }> {
  yield { sort: 'page', into: null, list: form.pages };
  for (const page of form.pages) {
    yield { sort: 'section', into: page.name, list: page.sections };
    for (const section of page.sections) {
      yield { sort: 'field', into: section.name, list: section.fields };
      for (const field of section.fields)
        if (field.kind === 'rows') yield { sort: 'cell', into: field.name, list: field.fields };
    }
  }
  yield { sort: 'button', into: null, list: (form.buttons ??= []) };
  yield { sort: 'track', into: null, list: (form.tracks ??= []) };
  yield { sort: 'list', into: null, list: (form.children ??= []) };
}

function nameIn(into: PartName | null, sort: PartSort, definition: Definition): PartName {
  return sort === 'cell' ? `${into}.${definition.name}` : definition.name;
}

/** Where a part stands; null when the form has none of that name. */
export function placeOf(form: Form, part: PartName): PartPlace | null {
  for (const { sort, into, list } of lists(copyOf(form))) {
    const at = list.findIndex((definition) => nameIn(into, sort, definition) === part);
    if (at >= 0) return { sort, into, at, definition: list[at]! };
  }
  return null;
}

/** The definition after an edit. Throws InvalidEdit when it cannot be done. */
export function edited(form: Form, edit: Edit): Form {
  const next = copyOf(form);
  switch (edit.do) {
    case 'add':
      insert(next, edit.sort, edit.into, edit.at, edit.definition);
      break;
    case 'remove':
      take(next, edit.part);
      break;
    case 'move': {
      const { sort, definition } = take(next, edit.part);
      insert(next, sort, edit.into, edit.at, definition);
      break;
    }
    case 'change':
      change(next, edit.part, edit.to);
      break;
    case 'changeForm':
      if (edit.title !== undefined) next.title = edit.title;
      if (edit.settings !== undefined) next.settings = edit.settings;
      if ('launch' in edit) next.launch = edit.launch;
      break;
  }
  return tidy(next);
}

function copyOf(form: Form): Form {
  return JSON.parse(JSON.stringify(form)) as Form;
}

/** Empty lists that the definition need not have are left out, so that going back gives the same. */
function tidy(form: Form): Form {
  if (form.buttons?.length === 0) delete form.buttons;
  if (form.tracks?.length === 0) delete form.tracks;
  if (form.children?.length === 0) delete form.children;
  if (form.settings !== undefined && Object.keys(form.settings).length === 0) delete form.settings;
  return form;
}

function listFor(form: Form, sort: PartSort, into: PartName | null): List {
  for (const found of lists(form))
    if (found.sort === sort && found.into === into) return found.list;
  throw new InvalidEdit(
    into === null
      ? `The form has no place for a ${sort}.`
      : `There is nothing called "${into}" that a ${sort} could stand in.`,
  );
}

function insert(
  form: Form,
  sort: PartSort,
  into: PartName | null,
  at: number,
  definition: Definition,
): void {
  if (sort === 'cell' && (definition as Field).kind === 'rows')
    throw new InvalidEdit('Rows do not nest: a field of a row cannot be rows itself.');
  const list = listFor(form, sort, into);
  list.splice(Math.max(0, Math.min(at, list.length)), 0, definition);
}

function take(form: Form, part: PartName): { sort: PartSort; definition: Definition } {
  for (const { sort, into, list } of lists(form)) {
    const at = list.findIndex((definition) => nameIn(into, sort, definition) === part);
    if (at < 0) continue;
    const last = list.length === 1 && (sort === 'page' || sort === 'section' || sort === 'cell');
    if (last) throw new InvalidEdit(LAST[sort]);
    const [definition] = list.splice(at, 1);
    if (sort === 'section') forgetSection(form, definition!.name);
    return { sort, definition: definition! };
  }
  throw new InvalidEdit(`The form has no part "${part}".`);
}

const LAST = {
  page: 'A form has at least one page.',
  section: 'A page has at least one section.',
  cell: 'A row has at least one field.',
};

/** Buttons and lists of records that stood in a section go to the foot of the form when it is gone. */
function forgetSection(form: Form, section: string): void {
  for (const placed of [...(form.buttons ?? []), ...(form.children ?? [])])
    if (placed.section === section) delete placed.section;
}

function change(form: Form, part: PartName, to: Readonly<Record<string, unknown>>): void {
  if ('name' in to)
    throw new InvalidEdit('A technical name is changed by renaming, which carries it through.');
  for (const { sort, into, list } of lists(form)) {
    const at = list.findIndex((definition) => nameIn(into, sort, definition) === part);
    if (at < 0) continue;
    const changed = { ...list[at]! } as Record<string, unknown>;
    for (const [key, value] of Object.entries(to)) {
      if (value === undefined) delete changed[key];
      else changed[key] = value;
    }
    list[at] = changed as unknown as Definition;
    return;
  }
  throw new InvalidEdit(`The form has no part "${part}".`);
}

/** A technical name made from a label, with a number where it is taken. */
export function nameFor(label: string, taken: ReadonlySet<string>): string {
  const stem =
    slugOf(label, '_')
      .replace(/^[^a-z]+/, '')
      .slice(0, 50) || 'part';
  return freeName(stem, taken, '_');
}

/** The names that parts of a form have; for a cell those of its row. */
export function namesTaken(
  form: Form,
  within: { sort: PartSort; into: PartName | null },
): Set<string> {
  const taken = new Set<string>();
  for (const { sort, into, list } of lists(copyOf(form))) {
    const cells = sort === 'cell';
    if (within.sort === 'cell' ? cells && into === within.into : !cells)
      for (const { name } of list) taken.add(name);
  }
  return taken;
}

/** A new field of a kind, with what its kind needs. */
export function newField(
  kind: FieldKind,
  name: string,
  label: string,
  table: string | null,
): Field {
  const base = { name, label };
  switch (kind) {
    case 'choice':
    case 'choices':
      return { ...base, kind, options: [] };
    case 'reference':
      if (table === null)
        throw new InvalidEdit('A reference needs a table, and the workspace has none yet.');
      return { ...base, kind, table };
    case 'rows':
      return { ...base, kind, fields: [{ name: 'note', label: 'Note', kind: 'text' }] };
    default:
      return { ...base, kind } as Field;
  }
}
