/** The option keys a field has by its definition, for expectations on options that no script has set. */
import type { Form } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import type { Table } from '../form/table';
import { holdsKeys } from '../form/traits';

export interface OptionSource {
  tables: readonly Table[];
}

export function tableOptions(
  form: Form,
  source: OptionSource,
): (address: string) => string[] | null {
  const fields = new Map(
    fieldsOf(form).flatMap((field) => [
      [field.name, field] as const,
      ...cellsOf(field).map((cell) => [`${field.name}[].${cell.name}`, cell] as const),
    ]),
  );
  return (address) => {
    const field = fields.get(address.replace(/\[\d+\]/, '[]'));
    if (field === undefined || !holdsKeys(field)) return null;
    if (field.kind !== 'reference') return field.options.map((option) => option.key);
    const table = source.tables.find((t) => t.name === field.table);
    return table?.rows.map((row) => String(row[table.key])) ?? null;
  };
}
