/** Reading and writing the workspace's own things: forms, behaviours with revisions, scenarios, tables, people. */
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import * as z from 'zod';
import { FormSchema, type Form } from '../core/form/definition';
import { ServiceSchema, type Service } from '../core/form/service';
import { PersonSchema, RoleSchema, TableSchema, type Person, type Role, type Table } from '../core/form/table';
import type { Values } from '../core/form/value';
import { inOrder } from '../core/language/header';
import { ScenarioSchema, type Scenario } from '../core/scenario/definition';
import type { FormRecords } from '../core/scenario/opening';
import { ValuesSchema } from '../core/session/schema';
import type { Searched } from '../core/language/search';
import { renamedInScenario, renumbered } from '../core/structure/behaviours';
import { nameFor } from '../core/structure/edit';
import { database } from './database';
import * as schema from './schema';

const WorkspaceRow = z.strictObject({ title: z.string(), roles: z.array(RoleSchema), people: z.array(PersonSchema).min(1) });

export interface StoredBehaviour {
  name: string;
  text: string;
  revision: number;
}

export interface StoredRecord {
  id: string;
  values: Values;
  revision: number;
  release: number | null;
  savedBy: string;
  savedAt: string;
}

export async function readHead(): Promise<{ title: string; roles: Role[]; people: Person[] }> {
  const [row] = await database().select().from(schema.workspace).limit(1);
  return WorkspaceRow.parse(row?.content);
}

export async function readTables(): Promise<Table[]> {
  const rows = await database().select().from(schema.referenceTable).orderBy(asc(schema.referenceTable.name));
  return rows.map((row) => TableSchema.parse(row.content));
}

export async function readServices(): Promise<Service[]> {
  const rows = await database().select().from(schema.service).orderBy(asc(schema.service.name));
  return rows.map((row) => ServiceSchema.parse(row.content));
}

export async function readForm(name: string): Promise<Form | null> {
  const [row] = await database().select().from(schema.form).where(eq(schema.form.name, name));
  return row === undefined ? null : FormSchema.parse(row.definition);
}

export async function readForms(): Promise<Form[]> {
  const rows = await database().select().from(schema.form).orderBy(asc(schema.form.name));
  return rows.map((row) => FormSchema.parse(row.definition));
}

/** Forms that list records of this one, with their own records: those it can be opened from. */
export async function readParents(name: string): Promise<FormRecords[]> {
  const parents = (await readForms()).filter((form) => form.children?.some((list) => list.form === name));
  return Promise.all(parents.map(async (form) => ({ form, records: (await readRecords(form.name)).map(({ id, values }) => ({ id, values })) })));
}

/** For each list of a form all records of the form it lists. */
export async function readRelated(form: Form): Promise<Record<string, FormRecords>> {
  const lists = await Promise.all(
    (form.children ?? []).map(async (list) => {
      const child = await readForm(list.form);
      return child === null ? [] : [[list.name, { form: child, records: (await readRecords(list.form)).map(({ id, values }) => ({ id, values })) }] as const];
    }),
  );
  return Object.fromEntries(lists.flat());
}

/** A new form with one page and one section, under a technical name made from its title. */
export async function addForm(title: string): Promise<string> {
  const taken = new Set((await readForms()).map((form) => form.name));
  const name = nameFor(title, taken);
  const form: Form = FormSchema.parse({ name, title, pages: [{ name: 'first_page', title, sections: [{ name: 'first_section', title, fields: [] }] }] });
  await database().insert(schema.form).values({ name, definition: form });
  return name;
}

export async function readBehaviours(form: string): Promise<StoredBehaviour[]> {
  const rows = await database().select().from(schema.behaviour).where(eq(schema.behaviour.form, form));
  return inOrder(rows.map(({ name, text, revision }) => ({ name, text, revision })));
}

/** The definition with the revision it is at; null when there is no such form. */
export async function readDefinition(name: string): Promise<{ form: Form; revision: number } | null> {
  const [row] = await database().select().from(schema.form).where(eq(schema.form.name, name));
  return row === undefined ? null : { form: FormSchema.parse(row.definition), revision: row.revision };
}

/** Saves a definition, provided that it is still at the revision the writer started from; else gives the other one. */
export async function saveDefinition(form: Form, from: number): Promise<{ saved: true; revision: number } | { saved: false; theirs: { form: Form; revision: number } }> {
  return database().transaction(async (tx) => {
    const where = eq(schema.form.name, form.name);
    const [now] = await tx.select().from(schema.form).where(where).for('update');
    if (now === undefined || now.revision !== from) return { saved: false, theirs: { form: now === undefined ? form : FormSchema.parse(now.definition), revision: now?.revision ?? 0 } };
    await tx.update(schema.form).set({ definition: form, revision: from + 1 }).where(where);
    return { saved: true, revision: from + 1 };
  });
}

export type SaveResult = { saved: true; revision: number } | { saved: false; theirs: StoredBehaviour };

/**
 * Saves a behaviour as a new revision, provided that it is still at the revision the writer started from; otherwise
 * nothing is saved and the other text is given back. Revision 0 makes a new behaviour.
 */
export async function saveBehaviour(form: string, name: string, text: string, from: number): Promise<SaveResult> {
  return database().transaction(async (tx) => {
    const where = and(eq(schema.behaviour.form, form), eq(schema.behaviour.name, name));
    const [now] = await tx.select().from(schema.behaviour).where(where).for('update');
    if (now !== undefined && now.text === text) return { saved: true, revision: now.revision };
    if ((now?.revision ?? 0) !== from) {
      const { text: theirs, revision } = now ?? { text: '', revision: 0 };
      return { saved: false, theirs: { name, text: theirs, revision } };
    }
    // One that was deleted and comes back goes on counting where it ended.
    const [last] = now === undefined ? await tx.select({ revision: schema.behaviourRevision.revision }).from(schema.behaviourRevision).where(revisionsOf(form, name)).orderBy(desc(schema.behaviourRevision.revision)).limit(1) : [];
    const revision = (last?.revision ?? from) + 1;
    if (now === undefined) await tx.insert(schema.behaviour).values({ form, name, text, revision });
    else await tx.update(schema.behaviour).set({ text, revision }).where(where);
    await tx.insert(schema.behaviourRevision).values({ form, name, text, revision });
    return { saved: true, revision };
  });
}

function revisionsOf(form: string, name: string) {
  return and(eq(schema.behaviourRevision.form, form), eq(schema.behaviourRevision.name, name));
}

export interface Revision {
  revision: number;
  text: string;
  savedAt: string;
}

/** Every text a behaviour has had, the newest first. */
export async function readRevisions(form: string, name: string): Promise<Revision[]> {
  const rows = await database().select().from(schema.behaviourRevision).where(revisionsOf(form, name)).orderBy(desc(schema.behaviourRevision.revision));
  return rows.map(({ revision, text, createdAt }) => ({ revision, text, savedAt: createdAt.toISOString() }));
}

/** Takes a behaviour away; its revisions are kept, so that saving it anew brings it back. */
export async function removeBehaviour(form: string, name: string): Promise<void> {
  await database().delete(schema.behaviour).where(and(eq(schema.behaviour.form, form), eq(schema.behaviour.name, name)));
}

/** Brings the behaviours of a form into an order by numbering their names; gives what was renamed. Null when `order` does not name just the behaviours there are. */
export async function orderBehaviours(form: string, order: readonly string[]): Promise<{ from: string; to: string }[] | null> {
  return database().transaction(async (tx) => {
    const { behaviour, behaviourRevision, scenario } = schema;
    const there = await tx.select({ name: behaviour.name }).from(behaviour).where(eq(behaviour.form, form)).for('update');
    if (there.length !== order.length || !there.every(({ name }) => order.includes(name))) return null;
    const renames = renumbered(order);
    // Through names that nothing has, since one may get the name that another is about to leave.
    for (const [step, rename] of [({ from, to }: { from: string; to: string }) => [from, `@${to}`], ({ to }: { to: string }) => [`@${to}`, to]].entries()) {
      for (const [from, to] of renames.map((one) => rename(one) as [string, string])) {
        await tx.update(behaviour).set({ name: to }).where(and(eq(behaviour.form, form), eq(behaviour.name, from)));
        // What is left of a deleted behaviour of that name makes room.
        if (step === 1) await tx.delete(behaviourRevision).where(revisionsOf(form, to));
        await tx.update(behaviourRevision).set({ name: to }).where(revisionsOf(form, from));
      }
    }
    for (const { name, content } of await tx.select().from(scenario).where(eq(scenario.form, form))) {
      const before = ScenarioSchema.parse(content);
      const after = renamedInScenario(before, renames);
      if (after !== before) await tx.update(scenario).set({ content: after }).where(and(eq(scenario.form, form), eq(scenario.name, name)));
    }
    return renames;
  });
}

/** Every script of the workspace, to be searched. */
export async function readScripts(): Promise<Searched[]> {
  const rows = await database().select().from(schema.behaviour).orderBy(asc(schema.behaviour.form));
  const forms = [...new Set(rows.map(({ form }) => form))];
  const behaviours = forms.flatMap((form) => inOrder(rows.filter((row) => row.form === form)).map(({ name, text }): Searched => ({ form, name, text })));
  const answering = (await readServices()).flatMap((service) => Object.entries(service.functions).flatMap(([name, { answers }]): Searched[] => (answers.from === 'script' ? [{ form: null, name: `${service.name}.${name}`, text: answers.script }] : [])));
  return [...behaviours, ...answering];
}

export interface StoredScenario {
  name: string;
  scenario: Scenario;
}

export async function readScenarios(form: string): Promise<StoredScenario[]> {
  const rows = await database().select().from(schema.scenario).where(eq(schema.scenario.form, form)).orderBy(asc(schema.scenario.name));
  return rows.map(({ name, content }) => ({ name, scenario: ScenarioSchema.parse(content) }));
}

/** Saves a new scenario under a name made from its title, with a number where that is taken. */
export async function addScenario(form: string, scenario: Scenario): Promise<StoredScenario> {
  const stem = scenario.title.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '').slice(0, 50) || 'scenario';
  for (let i = 1; ; i++) {
    const name = i === 1 ? stem : `${stem}-${i}`;
    const added = await database().insert(schema.scenario).values({ form, name, content: scenario }).onConflictDoNothing().returning();
    if (added.length > 0) return { name, scenario };
  }
}

export async function removeScenario(form: string, name: string): Promise<void> {
  await database().delete(schema.scenario).where(and(eq(schema.scenario.form, form), eq(schema.scenario.name, name)));
}

export async function readRecords(form: string): Promise<StoredRecord[]> {
  const rows = await database().select().from(schema.record).where(eq(schema.record.form, form)).orderBy(desc(schema.record.savedAt));
  return inListOrder(rows.map(asRecord));
}

export async function readRecord(form: string, id: string): Promise<StoredRecord | null> {
  const [row] = await database().select().from(schema.record).where(and(eq(schema.record.form, form), eq(schema.record.id, id)));
  return row === undefined ? null : asRecord(row);
}

/** The records before and after one in the order of the list, where newer ones stand first. */
export async function neighboursOf(form: string, id: string): Promise<{ previous: string | null; next: string | null }> {
  const rows = await database().select({ id: schema.record.id }).from(schema.record).where(eq(schema.record.form, form)).orderBy(desc(schema.record.savedAt));
  const ids = inListOrder(rows).map((row) => row.id);
  const at = ids.indexOf(id);
  return { previous: ids[at - 1] ?? null, next: at < 0 ? null : (ids[at + 1] ?? null) };
}

/** For each list of a form, the records that refer to this one. */
export async function childrenOf(form: Form, record: string | null): Promise<Record<string, FormRecords>> {
  const lists = await Promise.all(
    (form.children ?? []).map(async (list) => {
      const child = await readForm(list.form);
      if (child === null) return [];
      const { record: table } = schema;
      const refers = sql`${table.values} ->> ${list.field} = ${record}`;
      const rows = record === null ? [] : await database().select().from(table).where(and(eq(table.form, list.form), refers)).orderBy(desc(table.savedAt));
      return [[list.name, { form: child, records: inListOrder(rows.map(asRecord)).map(({ id, values }) => ({ id, values })) }] as const];
    }),
  );
  return Object.fromEntries(lists.flat());
}

function inListOrder<T extends { id: string }>(rows: readonly T[]): T[] {
  return rows.toSorted((a, b) => Number(b.id) - Number(a.id) || 0);
}

function asRecord(row: typeof schema.record.$inferSelect): StoredRecord {
  const { id, revision, release, savedBy, savedAt } = row;
  return { id, values: ValuesSchema.parse(row.values), revision, release, savedBy, savedAt: savedAt.toISOString() };
}
