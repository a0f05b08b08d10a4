/**
 * What a schema cannot say of a form: that names do not clash, that tables exist, that defaults are of their kind
 * (edges 7). Every fault names its place as a path into the definition.
 */
import type { Form } from './definition';
import { accept } from './kinds';
import { indexTable } from './table-index';
import type { Table } from './table';
import { inWords } from './value';

export interface Flaw {
  path: (string | number)[];
  says: string;
}

/** The flaws of a definition, none when it can be used. */
export function flawsOf(form: Form, tables: readonly Table[]): Flaw[] {
  const flaws: Flaw[] = [];
  const taken = new Map<string, string>();
  const claim = (name: string, sort: string, path: Flaw['path']) => {
    const before = taken.get(name);
    if (before !== undefined) flaws.push({ path: [...path, 'name'], says: `"${name}" already names a ${before}; every part needs a name of its own` });
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
        if (field.kind === 'reference' && !byName.has(field.table)) {
          flaws.push({ path: [...path, 'table'], says: `there is no table "${field.table}"` });
          return;
        }
        if (field.kind === 'choice') {
          const keys = new Set<string>();
          field.options.forEach((option, o) => {
            if (keys.has(option.key)) flaws.push({ path: [...path, 'options', o, 'key'], says: `the key "${option.key}" is there twice` });
            keys.add(option.key);
          });
        }
        if (field.default !== undefined) {
          const accepted = accept(field.default, field, { options: null, table: (name) => byName.get(name)! });
          if (!accepted.ok) {
            flaws.push({ path: [...path, 'default'], says: `is ${inWords(field.default)}, but a ${field.kind} takes ${accepted.takes}` });
          }
        }
      });
    });
  });
  form.buttons?.forEach((button, b) => {
    claim(button.name, 'button', ['buttons', b]);
    if (button.section !== undefined && taken.get(button.section) !== 'section') {
      flaws.push({ path: ['buttons', b, 'section'], says: `there is no section "${button.section}"` });
    }
  });
  return flaws;
}
