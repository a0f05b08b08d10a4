/**
 * What a schema cannot say of a form: that names do not clash, that tables exist, that defaults are of their kind.
 * Every error names its place as a path into the definition.
 */
import type { Field, Form, Option } from './definition';
import { cellsOf } from './fields';
import { accept } from './kinds';
import { indexTable, type TableIndex } from './table-index';
import type { Table } from './table';
import { inWords } from './value';
import { repeatsIn } from './repeats';

export interface DefinitionError {
  path: (string | number)[];
  says: string;
}

/** The errors of a definition, none when it can be used. */
export function definitionErrors(form: Form, tables: readonly Table[]): DefinitionError[] {
  const errors: DefinitionError[] = [];
  const taken = new Map<string, string>();
  const claim = (name: string, sort: string, path: DefinitionError['path']) => {
    const before = taken.get(name);
    if (before !== undefined)
      errors.push({
        path: [...path, 'name'],
        says: `"${name}" already names a ${before}; every part needs a name of its own`,
      });
    else taken.set(name, sort);
  };
  const byName = new Map(tables.map((table) => [table.name, indexTable(table)]));
  form.pages.forEach((page, p) => {
    claim(page.name, 'page', ['pages', p]);
    page.sections.forEach((section, s) => {
      claim(section.name, 'section', ['pages', p, 'sections', s]);
      section.fields.forEach((field, f) => {
        const path = ['pages', p, 'sections', s, 'fields', f];
        claim(field.name, 'field', path);
        errors.push(...errorsOfField(field, path, byName));
      });
    });
  });
  form.buttons?.forEach((button, b) => {
    claim(button.name, 'button', ['buttons', b]);
    if (button.section !== undefined && taken.get(button.section) !== 'section') {
      errors.push({
        path: ['buttons', b, 'section'],
        says: `there is no section "${button.section}"`,
      });
    }
  });
  form.tracks?.forEach((track, t) => {
    claim(track.name, 'track', ['tracks', t]);
    errors.push(...repeatedKeys(track.stages, ['tracks', t, 'stages']));
    if (track.stage !== undefined && !track.stages.some((stage) => stage.key === track.stage)) {
      errors.push({ path: ['tracks', t, 'stage'], says: `there is no stage "${track.stage}"` });
    }
  });
  const launched = new Set<string>();
  form.launch?.forEach(({ name }, l) => {
    if (launched.has(name))
      errors.push({
        path: ['launch', l, 'name'],
        says: `there are two launch parameters "${name}"`,
      });
    launched.add(name);
  });
  form.children?.forEach((list, c) => {
    claim(list.name, 'list of records', ['children', c]);
    if (list.section !== undefined && taken.get(list.section) !== 'section') {
      errors.push({
        path: ['children', c, 'section'],
        says: `there is no section "${list.section}"`,
      });
    }
  });
  return errors;
}

/** What is wrong with one field, cells of rows included. */
function errorsOfField(
  field: Field,
  path: DefinitionError['path'],
  tables: ReadonlyMap<string, TableIndex>,
): DefinitionError[] {
  const errors: DefinitionError[] = [];
  if (field.kind === 'reference' && !tables.has(field.table))
    return [{ path: [...path, 'table'], says: `there is no table "${field.table}"` }];
  if (field.kind === 'choice' || field.kind === 'choices')
    errors.push(...repeatedKeys(field.options, [...path, 'options']));
  const names = new Set<string>();
  cellsOf(field).forEach((cell, c) => {
    if (names.has(cell.name))
      errors.push({
        path: [...path, 'fields', c, 'name'],
        says: `"${cell.name}" already names a field of this row`,
      });
    names.add(cell.name);
    errors.push(...errorsOfField(cell, [...path, 'fields', c], tables));
  });
  if ('default' in field && field.default !== undefined) {
    const accepted = accept(field.default, field, {
      options: null,
      table: (name) => tables.get(name)!,
    });
    if (!accepted.ok)
      errors.push({
        path: [...path, 'default'],
        says: `is ${inWords(field.default)}, but a ${field.kind} takes ${accepted.takes}`,
      });
  }
  return errors;
}

function repeatedKeys(
  options: readonly Option[],
  path: DefinitionError['path'],
): DefinitionError[] {
  return repeatsIn(options.map(({ key }) => key)).map((o) => ({
    path: [...path, o, 'key'],
    says: `the key "${options[o]!.key}" is there twice`,
  }));
}
