/** Forms: new ones, and their definitions. */
import { listsChildren } from '../../core/form/fields';
import { recordsOf } from '../../core/scenario/inputs';
import { eq, sql } from 'drizzle-orm';
import { FormSchema, type Form } from '../../core/form/definition';
import { definitionErrors } from '../../core/form/integrity';
import { nameFor } from '../../core/structure/edit';
import { transaction, type Transaction } from '../database/database';
import { Refusal } from '../http/refusal';
import { readSamples } from '../records/read';
import { saveRecord } from '../records/save';
import {
  historyOf,
  isThere,
  readDocument,
  removeDocument,
  saveDocument,
} from '../revisions/documents';
import type { Saved } from '../revisions/save';
import * as schema from '../database/schema';
import { readBehaviours, readForm, readForms, readScenarios, readTables } from './read';

/** A new form with one page, one section and one field, under a technical name made from its title. */
export function addForm(title: string, by: string): Promise<string> {
  return transaction(async (tx) => {
    const name = await freeName(title, tx);
    const form = FormSchema.parse({
      name,
      title,
      pages: [
        {
          name: 'first_page',
          title,
          sections: [
            {
              name: 'first_section',
              title,
              fields: [{ name: 'first_field', kind: 'text', label: 'First field' }],
            },
          ],
        },
      ],
    });
    await saveDocument({ kind: 'form', name }, form, 0, by, tx);
    return name;
  });
}

/** A technical name that no form has or has had, so that nothing left behind by one becomes another's. */
export async function freeName(title: string, tx: Transaction): Promise<string> {
  // Two people who begin forms of one title at once get two.
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended('new form', 0))`);
  const { document } = schema;
  const there = await tx
    .select({ name: document.name })
    .from(document)
    .where(eq(document.kind, 'form'));
  return nameFor(title, new Set(there.map((form) => form.name)));
}

/** A form with the same structure, behaviours, scenarios and the records its scenarios open; it has no release. */
export async function copyForm(from: string, title: string, by: string): Promise<string> {
  const [form, behaviours, scenarios] = await Promise.all([
    existingForm(from),
    readBehaviours(from),
    readScenarios(from),
  ]);
  const ids = new Set(scenarios.flatMap(({ scenario }) => recordsOf(scenario).own));
  const samples = await readSamples(from, [...ids]);
  return transaction(async (tx) => {
    const name = await freeName(title, tx);
    await saveDocument({ kind: 'form', name }, { ...form, name, title }, 0, by, tx);
    for (const behaviour of behaviours)
      await saveDocument(
        { kind: 'behaviour', form: name, name: behaviour.name },
        behaviour.text,
        0,
        by,
        tx,
      );
    for (const one of scenarios)
      await saveDocument({ kind: 'scenario', form: name, name: one.name }, one.scenario, 0, by, tx);
    for (const { id, values } of samples)
      if (ids.has(id)) await saveRecord({ form: name, id }, values, 0, by, tx);
    const numbers = [...ids].map(Number).filter(Number.isInteger);
    await tx.insert(schema.recordNumber).values({ form: name, next: Math.max(0, ...numbers) + 1 });
    return name;
  });
}

/** Gives a form another title; its technical name, by which addresses and records know it, stays. */
export async function renameForm(name: string, title: string, by: string): Promise<void> {
  for (;;) {
    const found = await readDocument({ kind: 'form', name });
    if (found === null) throw new Refusal(404, `There is no form "${name}".`);
    const renamed = { ...found.content, title };
    const result = await saveDocument({ kind: 'form', name }, renamed, found.revision, by);
    if (result.saved) return;
  }
}

/**
 * Removes a form as it was seen at revision `from`; behaviours, scenarios, records and releases stay and are there again
 * when it is restored. Throws a Refusal (422) while another form lists its records.
 */
export async function removeForm(name: string, from: number, by: string): Promise<void> {
  const lister = (await readForms()).find(
    (form) => form.name !== name && listsChildren(form, name),
  );
  if (lister !== undefined)
    throw new Refusal(
      422,
      `${lister.title} lists records of this form. Remove that list in its structure first.`,
    );
  const result = await removeDocument({ kind: 'form', name }, from, by);
  if (result.saved) return;
  throw result.theirs.content === null
    ? new Refusal(404, `There is no form "${name}".`)
    : new Refusal(409, 'Somebody else changed this form meanwhile. Reload to see it.');
}

/** Brings a removed form back as it was. */
export async function restoreForm(name: string, by: string): Promise<void> {
  const [gone, last] = await historyOf({ kind: 'form', name });
  if (gone === undefined || (gone.content === null && last?.content == null))
    throw new Refusal(404, `There was no form "${name}".`);
  // Somebody else was faster.
  if (gone.content !== null) return;
  // What was removed counts as not there; somebody who restores it at the same time saves the same.
  await saveDocument({ kind: 'form', name }, last!.content!, 0, by);
}

/** A form that has to be there. Throws a Refusal (404) when there is none of that name. */
export async function existingForm(name: string): Promise<Form> {
  const form = await readForm(name);
  if (form === null) throw new Refusal(404, `There is no form "${name}".`);
  return form;
}

/** Saves a definition made from revision `from`. Throws a Refusal (422) for one that cannot be. */
export async function saveDefinition(form: Form, from: number, by: string): Promise<Saved<Form>> {
  if (from === 0) throw new Refusal(404, `There is no form "${form.name}".`);
  const [error] = definitionErrors(form, await readTables());
  if (error !== undefined) throw new Refusal(422, `${error.path.join('.')}: ${error.says}`);
  return saveDocument({ kind: 'form', name: form.name }, form, from, by);
}

/** Throws a Refusal (404) when there is no such form. */
export async function needForm(name: string): Promise<void> {
  if (!(await isThere({ kind: 'form', name })))
    throw new Refusal(404, `There is no form "${name}".`);
}
