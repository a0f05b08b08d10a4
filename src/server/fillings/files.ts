/**
 * The content of files: kept when a file is chosen, for a field of a filling-in, and bound to a record when that is
 * saved. A file is known by the digest of its content, which stands in the value, so no other can take its place.
 */
import { FILES_PER_FILLING } from '../../core/limits';
import { createHash } from 'node:crypto';
import { and, desc, eq } from 'drizzle-orm';
import type { Form } from '../../core/form/definition';
import { cellsOf, fieldsOf } from '../../core/form/fields';
import type { FileValue } from '../../core/form/kinds';
import type { Value, Values } from '../../core/form/value';
import { database } from '../database/database';
import { Refusal } from '../http/refusal';
import * as schema from '../database/schema';

const { fileContent } = schema;

/** The fields that hold files, as `field` or `rows.column`. */
export function fileFields(form: Form): string[] {
  return fieldsOf(form).flatMap((field) =>
    field.kind === 'file'
      ? [field.name]
      : cellsOf(field).flatMap((cell) =>
          cell.kind === 'file' ? [`${field.name}.${cell.name}`] : [],
        ),
  );
}

/** Keeps a file for a field of a filling-in; gives its value. Throws a Refusal when that is saved, or keeps too many. */
export async function keepFile(
  filling: { id: string; savedAs: string | null; form: string },
  field: string,
  file: { name: string; type: string },
  content: Buffer,
): Promise<FileValue> {
  if (filling.savedAs !== null)
    throw new Refusal(409, 'This form was saved, so its files stay as they are.');
  const kept = await database().$count(fileContent, eq(fileContent.filling, filling.id));
  if (kept >= FILES_PER_FILLING)
    throw new Refusal(
      422,
      `Only ${FILES_PER_FILLING} files can be chosen while a form is filled in.`,
    );
  const digest = createHash('sha256').update(content).digest('hex');
  const row = {
    filling: filling.id,
    form: filling.form,
    field,
    name: file.name,
    digest,
    size: content.length,
    type: file.type,
    content,
  };
  await database().insert(fileContent).values(row).onConflictDoNothing();
  return { name: file.name, size: content.length, type: file.type, digest };
}

/** The content of a file that a record names. Records from before files had digests name them by name alone. */
export async function readFile(
  form: Form,
  record: { id: string; values: Values },
  field: string,
  name: string,
  digest: string | undefined,
): Promise<Buffer | null> {
  const named = filesIn(form, record.values).some(
    (one) => one.field === field && one.file.name === name && one.file.digest === digest,
  );
  if (!named) return null;
  const where = and(
    eq(fileContent.form, form.name),
    eq(fileContent.record, record.id),
    eq(fileContent.name, name),
    digest === undefined
      ? undefined
      : and(eq(fileContent.field, field), eq(fileContent.digest, digest)),
  );
  const [row] = await database()
    .select({ content: fileContent.content })
    .from(fileContent)
    .where(where)
    .orderBy(desc(fileContent.createdAt))
    .limit(1);
  return row?.content ?? null;
}

/** Every file that values name, with its field. */
export function filesIn(form: Form, values: Values): { field: string; file: FileValue }[] {
  return fieldsOf(form).flatMap((field) => {
    const value = values[field.name] ?? null;
    const files = (name: string, list: Value | undefined) =>
      ((list ?? []) as unknown as FileValue[]).map((file) => ({ field: name, file }));
    if (field.kind === 'file') return files(field.name, value);
    const columns = cellsOf(field).filter((cell) => cell.kind === 'file');
    if (columns.length === 0 || !Array.isArray(value)) return [];
    return (value as readonly Record<string, Value>[]).flatMap((row) =>
      columns.flatMap((cell) => files(`${field.name}.${cell.name}`, row[cell.name])),
    );
  });
}

/** The first file whose content the server does not have for its field, neither of this filling-in nor of the record. */
export async function missingFile(
  form: Form,
  filling: string,
  record: string | null,
  values: Values,
): Promise<FileValue | null> {
  const wanted = filesIn(form, values);
  if (wanted.length === 0) return null;
  const columns = {
    field: fileContent.field,
    name: fileContent.name,
    size: fileContent.size,
    digest: fileContent.digest,
  };
  const own = await database()
    .select(columns)
    .from(fileContent)
    .where(eq(fileContent.filling, filling));
  const before =
    record === null
      ? []
      : await database()
          .select(columns)
          .from(fileContent)
          .where(and(eq(fileContent.form, form.name), eq(fileContent.record, record)));
  const has = ({ field, file }: (typeof wanted)[number]) =>
    [...own, ...before].some(
      (kept) =>
        kept.name === file.name &&
        kept.size === file.size &&
        (file.digest === undefined
          ? kept.field === ''
          : kept.digest === file.digest && kept.field === field),
    );
  return wanted.find((one) => !has(one))?.file ?? null;
}
