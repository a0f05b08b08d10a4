/** The tree of a form's parts, and how a part is found by its name or its place. */
import type { Button, Field, Form, Page, Section, Track } from '../form/definition';
import { readRowAddress } from './address';
import { basesOf, Part, type Nesting } from './parts';
import { Rows } from './rows';
import type { PartSort } from './step';

/** The parts of a form by name; `@form` is the form itself. */
export interface Parts {
  nesting: Nesting;
  form: Part;
  byName: Map<string, Part>;
  pages: Part[];
  /** Without the cells of rows. */
  fields: Part[];
}

export const FORM = '@form';

export function partsOf(form: Form): Parts {
  const nesting: Nesting = { version: 0 };
  const root = new Part('form', FORM, form, null, nesting, basesOf('form', form));
  const byName = new Map<string, Part>([[FORM, root]]);
  const pages: Part[] = [];
  const fields: Part[] = [];
  const add = (
    sort: PartSort,
    definition: Page | Section | Field | Button | Track,
    parent: Part,
  ): Part => {
    const part = new Part(
      sort,
      definition.name,
      definition,
      parent,
      nesting,
      basesOf(sort, definition),
    );
    byName.set(part.name, part);
    return part;
  };
  for (const page of form.pages) {
    const pagePart = add('page', page, root);
    pages.push(pagePart);
    for (const section of page.sections) {
      const sectionPart = add('section', section, pagePart);
      for (const field of section.fields) {
        const part = add('field', field, sectionPart);
        if (field.kind === 'rows') part.rows = new Rows(part, field, nesting);
        fields.push(part);
      }
    }
  }
  for (const button of form.buttons ?? []) {
    add('button', button, button.section === undefined ? root : byName.get(button.section)!);
  }
  for (const track of form.tracks ?? []) add('track', track, root);
  return { nesting, form: root, byName, pages, fields };
}

/** The part that a step or scenario names, such as `draught`, `cargo[0]` or `cargo[0].weight`; null when there is none. */
export function partAt(parts: Parts, address: string): Part | null {
  const found = readRowAddress(address);
  if (found === null) return address === FORM ? null : (parts.byName.get(address) ?? null);
  const rows = parts.byName.get(found.rows)?.rows ?? null;
  const row = rows?.list[found.place];
  if (rows === null || row === undefined) return null;
  if (found.cell === null) return row.part;
  return rows.columns.has(found.cell) ? rows.cell(row, found.cell) : null;
}
