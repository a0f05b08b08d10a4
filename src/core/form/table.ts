/** Reference data: typed columns and keyed rows, and the people a form can be opened as. */
import * as z from 'zod';
import { Key, Name } from './definition';
import { SCALAR_KINDS } from './scalar';

export const ColumnSchema = z.strictObject({
  name: Name,
  label: z.string().optional(),
  kind: z.enum(SCALAR_KINDS),
});

/** `tables/NAME.json`: what the columns of `tables/NAME.csv` are. */
export const TableShape = z.strictObject({
  $schema: z.string().optional(),
  title: z.string().min(1),
  key: Name.describe('The column whose values are the keys of the rows.'),
  label: Name.describe('The column people read where a row is named.'),
  columns: z.array(ColumnSchema).min(1),
});
export type TableShape = z.infer<typeof TableShape>;

export const CellValue = z.union([z.string(), z.number(), z.boolean(), z.null()]);
export type CellValue = z.infer<typeof CellValue>;

export const RowSchema = z.record(z.string(), CellValue);
export type TableRow = Readonly<Record<string, CellValue>>;

export const TableSchema = z.strictObject({
  name: Name,
  ...TableShape.omit({ $schema: true }).shape,
  rows: z.array(RowSchema),
});
export type Table = z.infer<typeof TableSchema>;

export const RoleSchema = z.strictObject({ key: Name, label: z.string().min(1) });
export type Role = z.infer<typeof RoleSchema>;

export const PersonSchema = z.strictObject(
  { key: Key, name: z.string().min(1), roles: z.array(Name).min(1).max(50) },
  {
    error: (issue) =>
      issue.code === 'unrecognized_keys' && issue.keys.includes('role')
        ? 'A person may have several roles: write "roles": ["…"] in place of "role".'
        : undefined,
  },
);
export type Person = z.infer<typeof PersonSchema>;
