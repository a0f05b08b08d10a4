/** Editing what forms share: tables, services, people and roles. Nothing is overwritten that somebody else saved meanwhile. */
import { eq } from 'drizzle-orm';
import { fieldsOf, cellsOf } from '../core/form/definition';
import { ServiceSchema, type Service } from '../core/form/service';
import { PersonSchema, RoleSchema, TableSchema, type Table } from '../core/form/table';
import * as z from 'zod';
import { database } from './database';
import { Refusal } from './request';
import * as schema from './schema';
import { readForms, readServices } from './store';

export const HeadSchema = z
  .strictObject({ title: z.string().min(1).max(120), roles: z.array(RoleSchema).min(1), people: z.array(PersonSchema).min(1) })
  .superRefine(({ roles, people }, context) => {
    twice(roles.map((role) => role.key)).forEach((key) => context.addIssue({ code: 'custom', message: `the role "${key}" is there twice` }));
    twice(people.map((person) => person.key)).forEach((key) => context.addIssue({ code: 'custom', message: `the person "${key}" is there twice` }));
    for (const person of people) {
      for (const held of person.roles) if (!roles.some((role) => role.key === held)) context.addIssue({ code: 'custom', message: `${person.name} has the role "${held}", which there is not` });
      if (new Set(person.roles).size < person.roles.length) context.addIssue({ code: 'custom', message: `${person.name} has a role twice` });
    }
  });
export type Head = z.infer<typeof HeadSchema>;

function twice(keys: readonly string[]): string[] {
  return keys.filter((key, i) => keys.indexOf(key) !== i);
}

export type Saved<T> = { saved: true; revision: number } | { saved: false; theirs: { content: T; revision: number } };

export async function readHeadRevision(): Promise<number> {
  const [row] = await database().select({ revision: schema.workspace.revision }).from(schema.workspace).limit(1);
  return row!.revision;
}

export async function saveHead(head: Head, from: number): Promise<Saved<Head>> {
  return database().transaction(async (tx) => {
    const [now] = await tx.select().from(schema.workspace).limit(1).for('update');
    if (now!.revision !== from) return { saved: false, theirs: { content: HeadSchema.parse(now!.content), revision: now!.revision } };
    await tx.update(schema.workspace).set({ content: head, revision: from + 1 }).where(eq(schema.workspace.id, now!.id));
    return { saved: true, revision: from + 1 };
  });
}

/** What a table has to be besides its shape. Throws a Refusal that names the first fault. */
function soundTable(table: Table): void {
  const columns = new Set(table.columns.map((column) => column.name));
  for (const role of ['key', 'label'] as const) if (!columns.has(table[role])) throw new Refusal(422, `There is no column "${table[role]}" to be the ${role}.`);
  const keys = new Set<string>();
  for (const [i, row] of table.rows.entries()) {
    const key = String(row[table.key] ?? '');
    if (key === '') throw new Refusal(422, `Row ${i + 1} has no key (${table.key}).`);
    if (keys.has(key)) throw new Refusal(422, `Row ${i + 1}: the key "${key}" is there twice.`);
    keys.add(key);
  }
}

export async function readTable(name: string): Promise<{ table: Table; revision: number } | null> {
  const [row] = await database().select().from(schema.referenceTable).where(eq(schema.referenceTable.name, name));
  return row === undefined ? null : { table: TableSchema.parse(row.content), revision: row.revision };
}

/** Saves a table; revision 0 makes a new one. */
export async function saveTable(table: Table, from: number): Promise<Saved<Table>> {
  soundTable(table);
  return database().transaction(async (tx) => {
    const where = eq(schema.referenceTable.name, table.name);
    const [now] = await tx.select().from(schema.referenceTable).where(where).for('update');
    if ((now?.revision ?? 0) !== from) return { saved: false, theirs: { content: TableSchema.parse(now?.content ?? table), revision: now?.revision ?? 0 } };
    if (now === undefined) await tx.insert(schema.referenceTable).values({ name: table.name, content: table });
    else await tx.update(schema.referenceTable).set({ content: table, revision: from + 1 }).where(where);
    return { saved: true, revision: from + 1 };
  });
}

/** Removes a table that nothing refers to. Throws a Refusal that names what does. */
export async function removeTable(name: string): Promise<void> {
  for (const form of await readForms()) {
    const field = fieldsOf(form).flatMap((one) => [one, ...cellsOf(one)]).find((one) => one.kind === 'reference' && one.table === name);
    if (field !== undefined) throw new Refusal(409, `${field.label} of ${form.title} refers to this table.`);
  }
  for (const service of await readServices()) {
    const answers = Object.values(service.functions).some((made) => made.answers.from === 'table' && made.answers.table === name);
    if (answers) throw new Refusal(409, `The service ${service.title} answers from this table.`);
  }
  const scripts = await database().select().from(schema.behaviour);
  const user = scripts.find(({ text }) => new RegExp(`\\btables\\s*(?:\\.|\\?\\.|\\[\\s*["'])\\s*${name}\\b`).test(text));
  if (user !== undefined) throw new Refusal(409, `The behaviour ${user.name} of ${user.form} uses this table.`);
  await database().delete(schema.referenceTable).where(eq(schema.referenceTable.name, name));
}

export async function readService(name: string): Promise<{ service: Service; revision: number } | null> {
  const [row] = await database().select().from(schema.service).where(eq(schema.service.name, name));
  return row === undefined ? null : { service: ServiceSchema.parse(row.content), revision: row.revision };
}

/** Saves a service; revision 0 makes a new one. */
export async function saveService(service: Service, from: number): Promise<Saved<Service>> {
  for (const [called, { parameters, answers }] of Object.entries(service.functions)) {
    if (answers.from !== 'table') continue;
    const table = (await readTable(answers.table))?.table;
    if (table === undefined) throw new Refusal(422, `${called} answers from the table "${answers.table}", which there is not.`);
    for (const [column, parameter] of Object.entries(answers.where)) {
      if (!table.columns.some((one) => one.name === column)) throw new Refusal(422, `${called}: the table ${table.title} has no column "${column}".`);
      if (!parameters.some((one) => one.name === parameter)) throw new Refusal(422, `${called} has no parameter "${parameter}".`);
    }
  }
  return database().transaction(async (tx) => {
    const where = eq(schema.service.name, service.name);
    const [now] = await tx.select().from(schema.service).where(where).for('update');
    if ((now?.revision ?? 0) !== from) return { saved: false, theirs: { content: ServiceSchema.parse(now?.content ?? service), revision: now?.revision ?? 0 } };
    if (now === undefined) await tx.insert(schema.service).values({ name: service.name, content: service });
    else await tx.update(schema.service).set({ content: service, revision: from + 1 }).where(where);
    return { saved: true, revision: from + 1 };
  });
}

/** Removes a service that no behaviour calls. Throws a Refusal that names who does. */
export async function removeService(name: string): Promise<void> {
  const scripts = await database().select().from(schema.behaviour);
  const user = scripts.find(({ text }) => new RegExp(`\\bservices\\s*\\.\\s*${name}\\b`).test(text));
  if (user !== undefined) throw new Refusal(409, `The behaviour ${user.name} of ${user.form} calls this service.`);
  await database().delete(schema.service).where(eq(schema.service.name, name));
}
