/** Builders for small forms that read like the domain. */
import type {
  Button,
  CellField,
  Field,
  Form,
  Page,
  Section,
  Track,
} from '../../src/core/form/definition';
import type { Service } from '../../src/core/form/service';
import type { Table } from '../../src/core/form/table';

export const text = (name: string, more: object = {}): Field =>
  ({ kind: 'text', name, label: labelOf(name), ...more }) as Field;
export const number = (name: string, more: object = {}): Field =>
  ({ kind: 'number', name, label: labelOf(name), ...more }) as Field;
export const money = (name: string, more: object = {}): Field =>
  ({ kind: 'money', name, label: labelOf(name), ...more }) as Field;
export const date = (name: string, more: object = {}): Field =>
  ({ kind: 'date', name, label: labelOf(name), ...more }) as Field;
export const yesNo = (name: string, more: object = {}): Field =>
  ({ kind: 'yes_no', name, label: labelOf(name), ...more }) as Field;
export const choice = (name: string, keys: string[], more: object = {}): Field =>
  ({
    kind: 'choice',
    name,
    label: labelOf(name),
    options: keys.map((key) => ({ key, label: labelOf(key) })),
    ...more,
  }) as Field;
export const reference = (name: string, table: string, more: object = {}): Field =>
  ({ kind: 'reference', name, label: labelOf(name), table, ...more }) as Field;
export const time = (name: string, more: object = {}): Field =>
  ({ kind: 'time', name, label: labelOf(name), ...more }) as Field;
export const datetime = (name: string, more: object = {}): Field =>
  ({ kind: 'datetime', name, label: labelOf(name), ...more }) as Field;
export const choices = (name: string, keys: string[], more: object = {}): Field =>
  ({
    kind: 'choices',
    name,
    label: labelOf(name),
    options: keys.map((key) => ({ key, label: labelOf(key) })),
    ...more,
  }) as Field;
export const file = (name: string, more: object = {}): Field =>
  ({ kind: 'file', name, label: labelOf(name), ...more }) as Field;
export const rows = (name: string, fields: Field[], more: object = {}): Field =>
  ({ kind: 'rows', name, label: labelOf(name), fields: fields as CellField[], ...more }) as Field;
export const track = (name: string, stages: string[], more: object = {}): Track => ({
  name,
  title: labelOf(name),
  stages: stages.map((key) => ({ key, label: labelOf(key) })),
  ...more,
});
export const section = (name: string, fields: Field[], more: object = {}): Section => ({
  name,
  title: labelOf(name),
  fields,
  ...more,
});
export const page = (name: string, sections: Section[], more: object = {}): Page => ({
  name,
  title: labelOf(name),
  sections,
  ...more,
});
export const button = (name: string, more: object = {}): Button => ({
  name,
  label: labelOf(name),
  ...more,
});

/** A form of one page and one section with these fields. */
export function formWith(fields: Field[], more: Partial<Form> = {}): Form {
  return {
    name: 'visit',
    title: 'Visit',
    pages: [page('main', [section('stay', fields)])],
    ...more,
  };
}

export const berths: Table = {
  name: 'berths',
  title: 'Berths',
  key: 'code',
  label: 'name',
  columns: [
    { name: 'code', kind: 'text' },
    { name: 'name', kind: 'text' },
    { name: 'depth', kind: 'number' },
  ],
  rows: [
    { code: 'nq1', name: 'North quay 1', depth: 6 },
    { code: 'nq2', name: 'North quay 2', depth: 9 },
    { code: 'om1', name: 'Outer mole 1', depth: 12 },
  ],
};

/** A register that finds a berth by its code, and one that counts letters with a script. */
export const lookup: Service = {
  name: 'register',
  title: 'Berth register',
  functions: {
    find: {
      parameters: [{ name: 'code', kind: 'text' }],
      answers: { from: 'table', table: 'berths', where: { code: 'code' } },
    },
    deeper: {
      parameters: [{ name: 'than', kind: 'number' }],
      delay: 500,
      answers: {
        from: 'script',
        script:
          'return tables.berths.rows.filter((row) => row.depth > than).map((row) => row.code);',
        gives: 'string[]',
      },
    },
  },
};

function labelOf(name: string): string {
  return name.charAt(0).toUpperCase() + name.slice(1).replace(/_/g, ' ');
}
