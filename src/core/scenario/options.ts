/** The option keys a field has by its definition, for expectations on options that no script has set. */
import { fieldsOf, type Form } from '../form/definition';
import type { Table } from '../form/table';

export interface OptionSource {
  tables: readonly Table[];
}

export function tableOptions(form: Form, source: OptionSource): (field: string) => string[] | null {
  const fields = new Map(fieldsOf(form).map((field) => [field.name, field]));
  return (name) => {
    const field = fields.get(name);
    if (field?.kind === 'choice') return field.options.map((option) => option.key);
    if (field?.kind !== 'reference') return null;
    const table = source.tables.find((t) => t.name === field.table);
    return table?.rows.map((row) => String(row[table.key])) ?? null;
  };
}
