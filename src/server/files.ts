/** The content of files: kept when a file is chosen, bound to a record when the filling-in is saved. */
import { and, desc, eq } from 'drizzle-orm';
import { cellsOf, fieldsOf, type Form } from '../core/form/definition';
import type { FileValue } from '../core/form/kinds';
import type { Value, Values } from '../core/form/value';
import { database } from './database';
import * as schema from './schema';

/** Keeps a file for a filling-in, in place of one of the same name. */
export async function keepFile(form: string, filling: string, file: FileValue, content: Buffer): Promise<void> {
  const row = { size: file.size, type: file.type, content };
  await database()
    .insert(schema.fileContent)
    .values({ filling, form, name: file.name, ...row })
    .onConflictDoUpdate({ target: [schema.fileContent.filling, schema.fileContent.name], set: row });
}

/** The newest content of a record's file of this name. */
export async function readFile(form: string, record: string, name: string): Promise<{ type: string; content: Buffer } | null> {
  const { fileContent } = schema;
  const where = and(eq(fileContent.form, form), eq(fileContent.record, record), eq(fileContent.name, name));
  const [row] = await database().select().from(fileContent).where(where).orderBy(desc(fileContent.createdAt)).limit(1);
  return row === undefined ? null : { type: row.type, content: row.content };
}

/** Every file that values name. */
export function filesIn(form: Form, values: Values): FileValue[] {
  return fieldsOf(form).flatMap((field) => {
    const value = values[field.name] ?? null;
    if (field.kind === 'file') return (value ?? []) as unknown as FileValue[];
    const columns = cellsOf(field).filter((cell) => cell.kind === 'file');
    if (columns.length === 0 || !Array.isArray(value)) return [];
    return (value as readonly Record<string, Value>[]).flatMap((row) => columns.flatMap((cell) => (row[cell.name] ?? []) as unknown as FileValue[]));
  });
}

/** The first file whose content the server does not have, neither of this filling-in nor of the record. */
export async function missingFile(form: Form, filling: string, record: string | null, values: Values): Promise<FileValue | null> {
  const wanted = filesIn(form, values);
  if (wanted.length === 0) return null;
  const { fileContent } = schema;
  const columns = { name: fileContent.name, size: fileContent.size };
  const own = await database().select(columns).from(fileContent).where(eq(fileContent.filling, filling));
  const before = record === null ? [] : await database().select(columns).from(fileContent).where(and(eq(fileContent.form, form.name), eq(fileContent.record, record)));
  const kept = [...own, ...before];
  return wanted.find((file) => !kept.some(({ name, size }) => name === file.name && size === file.size)) ?? null;
}
