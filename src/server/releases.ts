/** Releases: immutable, numbered copies of a form with its tables and behaviours, compiled as they were. */
import { desc, eq } from 'drizzle-orm';
import * as z from 'zod';
import { FormSchema } from '../core/form/definition';
import { ServiceSchema } from '../core/form/service';
import { TableSchema } from '../core/form/table';
import { MaterialSchema } from '../core/sandbox/protocol';
import type { Material } from '../core/session/session';
import { materialOf } from '../core/language/material';
import { database } from './database';
import { readBehaviours, readForm, readServices, readTables } from './store';
import * as schema from './schema';

const ReleaseRow = z.strictObject({
  form: FormSchema,
  tables: z.array(TableSchema),
  /** Absent from releases made before there were services. */
  services: z.array(ServiceSchema).default([]),
  answering: z.array(z.unknown()).default([]),
  sources: z.array(z.strictObject({ name: z.string(), text: z.string(), revision: z.number() })),
  scripts: z.array(z.unknown()),
});

export interface Release {
  id: number;
  number: number;
  createdAt: string;
  material: Material;
  sources: { name: string; text: string; revision: number }[];
}

/** A behaviour does not compile, so no release was made. */
export class CannotRelease extends Error {}

export async function makeRelease(name: string): Promise<{ number: number }> {
  const form = await readForm(name);
  if (form === null) throw new CannotRelease(`There is no form "${name}".`);
  const [sources, tables, services] = await Promise.all([readBehaviours(name), readTables(), readServices()]);
  const { scripts, answering } = materialOf(form, { tables, services }, sources, 'untraced');
  const broken = scripts.find((script) => script.failure !== null);
  if (broken !== undefined) throw new CannotRelease(`${broken.title}, line ${broken.failure!.line}: ${broken.failure!.says}`);
  return database().transaction(async (tx) => {
    // Two people releasing at once get two numbers.
    await tx.select().from(schema.form).where(eq(schema.form.name, name)).for('update');
    const [last] = await tx.select().from(schema.release).where(eq(schema.release.form, name)).orderBy(desc(schema.release.number)).limit(1);
    const number = (last?.number ?? 0) + 1;
    await tx.insert(schema.release).values({ form: name, number, content: { form, tables, services, answering, sources, scripts } });
    return { number };
  });
}

/** Which release is the newest, without reading it whole. */
export async function newestNumber(form: string): Promise<{ number: number; createdAt: string } | null> {
  const { number, createdAt } = schema.release;
  const [row] = await database().select({ number, createdAt }).from(schema.release).where(eq(schema.release.form, form)).orderBy(desc(number)).limit(1);
  return row === undefined ? null : { number: row.number, createdAt: row.createdAt.toISOString() };
}

export async function newestRelease(form: string): Promise<Release | null> {
  const [row] = await database().select().from(schema.release).where(eq(schema.release.form, form)).orderBy(desc(schema.release.number)).limit(1);
  return row === undefined ? null : asRelease(row);
}

export async function releaseById(id: number): Promise<Release | null> {
  const [row] = await database().select().from(schema.release).where(eq(schema.release.id, id));
  return row === undefined ? null : asRelease(row);
}

function asRelease(row: typeof schema.release.$inferSelect): Release {
  const { form, tables, services, answering, sources, scripts } = ReleaseRow.parse(row.content);
  const material = MaterialSchema.parse({ form, tables, services, answering, scripts, traced: false });
  return { id: row.id, number: row.number, createdAt: row.createdAt.toISOString(), material, sources };
}
