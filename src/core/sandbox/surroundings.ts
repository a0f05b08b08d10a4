/** What the scripts of a form can touch, as the guest is told before it loads any. */
import type { Material } from '../session/material';
import { partsOf } from '../session/tree';
import type { PartInfo, GuestMaterial } from '../wire/acts';

export function surroundingsOf({ form, tables, services }: Material): GuestMaterial {
  return {
    parts: [...partsOf(form).byName.values()].map((part): PartInfo => ({
      sort: part.sort,
      name: part.name,
      label: part.sort === 'form' ? form.title : part.label,
      kind: part.sort === 'field' ? part.field.kind : null,
      table: part.sort === 'field' && part.field.kind === 'reference' ? part.field.table : null,
      columns:
        part.rows === null
          ? null
          : [...part.rows.columns.values()].map(({ field }) => ({
              sort: 'field',
              name: field.name,
              label: field.label,
              kind: field.kind,
              table: field.kind === 'reference' ? field.table : null,
              columns: null,
            })),
    })),
    tables: tables.map(({ name, key, rows }) => ({ name, key, rows: [...rows] })),
    services: services.map(({ name, functions }) => ({ name, functions: Object.keys(functions) })),
  };
}
