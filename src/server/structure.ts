/** Editing structure where it reaches beyond the form: what uses a part, and renaming it everywhere at once. */
import { and, eq } from 'drizzle-orm';
import type { Form } from '../core/form/definition';
import { equal, type Value } from '../core/form/value';
import { libs } from '../core/language/generated/libs';
import { ValuesSchema } from '../core/session/schema';
import { StructureFault } from '../core/structure/edit';
import { planRename, renameInValues, type RenamePlan } from '../core/structure/rename';
import { usesOf, usesOfKey, type Reach, type Uses } from '../core/structure/uses';
import { database } from './database';
import { Refusal } from './request';
import * as schema from './schema';
import { readBehaviours, readForms, readHead, readRecords, readScenarios, readServices, readTables } from './store';

async function reach(): Promise<Reach> {
  const [head, forms, tables, services] = await Promise.all([readHead(), readForms(), readTables(), readServices()]);
  const sources = await Promise.all(
    forms.map(async (form) => {
      const [behaviours, scenarios] = await Promise.all([readBehaviours(form.name), readScenarios(form.name)]);
      return { form, behaviours, scenarios };
    }),
  );
  return { forms: sources, tables, services, roles: head.roles, libs };
}

export interface KeyUses {
  mentions: Uses['mentions'];
  scenarios: string[];
  records: number;
}

/** What uses a part, or one key of its options; for a key also how many records hold it. */
export async function whatUses(form: string, part: string, key: string | null): Promise<Uses | KeyUses> {
  const all = await reach();
  if (!all.forms.some((one) => one.form.name === form)) throw new Refusal(404, `There is no form "${form}".`);
  if (key === null) return usesOf(all, form, part);
  const records = await readRecords(form);
  const [field, cell] = part.split('.') as [string, string?];
  const holds = (value: Value | undefined): boolean => equal(value, key) || (Array.isArray(value) && value.includes(key));
  const held = records.filter(({ values }) => (cell === undefined ? holds(values[field]) : Array.isArray(values[field]) && (values[field] as Record<string, Value>[]).some((row) => holds(row[cell]))));
  return { ...usesOfKey(all, form, part, key), records: held.length };
}

export interface Renaming {
  plan: Pick<RenamePlan, 'part' | 'to' | 'sort' | 'behaviours' | 'mentions'> & { forms: string[]; scenarios: { name: string; title: string }[] };
  records: number;
  applied: boolean;
}

/** Plans a renaming and, when asked to, takes it over in one transaction. */
export async function renamePart(form: string, part: string, to: string, apply: boolean): Promise<Renaming> {
  const plan = planned(await reach(), form, part, to);
  const records = plan.inRecords ? await readRecords(form) : [];
  const changed = records.flatMap(({ id, values }) => {
    const renamed = renameInValues(values, part, to, plan.sort);
    return equal(renamed, values) ? [] : [{ id, values: ValuesSchema.parse(renamed) }];
  });
  if (apply) await takeOver(plan, changed);
  const { sort, behaviours, mentions } = plan;
  return {
    plan: { part, to, sort, behaviours, mentions, forms: plan.forms.map((one: Form) => one.title), scenarios: plan.scenarios.map(({ name, title }) => ({ name, title })) },
    records: changed.length,
    applied: apply,
  };
}

function planned(all: Reach, form: string, part: string, to: string): RenamePlan {
  try {
    return planRename(all, form, part, to);
  } catch (caught) {
    if (caught instanceof StructureFault) throw new Refusal(422, caught.message);
    throw caught;
  }
}

async function takeOver(plan: RenamePlan, records: readonly { id: string; values: unknown }[]): Promise<void> {
  await database().transaction(async (tx) => {
    for (const form of plan.forms) {
      const [now] = await tx.select().from(schema.form).where(eq(schema.form.name, form.name)).for('update');
      await tx.update(schema.form).set({ definition: form, revision: now!.revision + 1 }).where(eq(schema.form.name, form.name));
    }
    for (const { form, name, text } of plan.behaviours) {
      const where = and(eq(schema.behaviour.form, form), eq(schema.behaviour.name, name));
      const [now] = await tx.select().from(schema.behaviour).where(where).for('update');
      const revision = now!.revision + 1;
      await tx.update(schema.behaviour).set({ text, revision }).where(where);
      await tx.insert(schema.behaviourRevision).values({ form, name, text, revision });
    }
    for (const { form, name, scenario } of plan.scenarios) {
      await tx.update(schema.scenario).set({ content: scenario }).where(and(eq(schema.scenario.form, form), eq(schema.scenario.name, name)));
    }
    for (const { id, values } of records) {
      await tx.update(schema.record).set({ values }).where(and(eq(schema.record.form, plan.form), eq(schema.record.id, id)));
    }
  });
}
