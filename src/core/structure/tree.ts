/** The parts of a form as lines of a tree, and where one that is dragged may be dropped. */
import type { Form } from '../form/definition';
import type { Definition, PartName, PartSort } from './edit';

export interface Item {
  part: PartName;
  sort: PartSort;
  into: PartName | null;
  at: number;
  depth: number;
  label: string;
  name: string;
}

/** The parts as the lines of the tree, in the order of the definition. */
export function itemsOf(form: Form): Item[] {
  const items: Item[] = [];
  const add = (
    sort: PartSort,
    into: PartName | null,
    at: number,
    depth: number,
    part: PartName,
    definition: Definition,
  ) =>
    items.push({
      part,
      sort,
      into,
      at,
      depth,
      label: 'label' in definition ? definition.label : definition.title,
      name: definition.name,
    });
  form.pages.forEach((page, p) => {
    add('page', null, p, 0, page.name, page);
    page.sections.forEach((section, s) => {
      add('section', page.name, s, 1, section.name, section);
      section.fields.forEach((field, f) => {
        add('field', section.name, f, 2, field.name, field);
        if (field.kind === 'rows')
          field.fields.forEach((cell, c) =>
            add('cell', field.name, c, 3, `${field.name}.${cell.name}`, cell),
          );
      });
    });
  });
  form.buttons?.forEach((button, b) => add('button', null, b, 0, button.name, button));
  form.tracks?.forEach((track, t) => add('track', null, t, 0, track.name, track));
  form.children?.forEach((list, l) => add('list', null, l, 0, list.name, list));
  return items;
}

/** Where a part dropped on another goes: into the same list at its place, or to the beginning of what can hold it. */
export function dropTarget(
  items: readonly Item[],
  dragged: Item,
  over: Item,
): { into: PartName | null; at: number } | null {
  if (over.sort === dragged.sort) return { into: over.into, at: over.at };
  if (dragged.sort === 'field' && over.sort === 'section') return { into: over.part, at: 0 };
  if (dragged.sort === 'field' && over.sort === 'cell')
    return dropTarget(
      items,
      dragged,
      items.find((item) => item.part === over.into)!,
    );
  if (dragged.sort === 'section' && over.sort === 'page') return { into: over.part, at: 0 };
  if (dragged.sort === 'section' && over.sort === 'field')
    return dropTarget(
      items,
      dragged,
      items.find((item) => item.part === over.into)!,
    );
  if (
    dragged.sort === 'cell' &&
    over.sort === 'field' &&
    items.some((item) => item.into === over.part)
  )
    return { into: over.part, at: 0 };
  return null;
}
