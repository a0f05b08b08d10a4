/** Forms: new ones, and their definitions. */
import { eq, sql } from 'drizzle-orm';
import { FormSchema, type Form } from '../../core/form/definition';
import { flawsOf } from '../../core/form/integrity';
import { nameFor } from '../../core/structure/edit';
import { transaction } from '../database';
import { Refusal } from '../http/refusal';
import { isThere, saveDocument } from '../revisions/documents';
import type { Saved } from '../revisions/save';
import * as schema from '../schema';
import { readTables } from './read';

/** A new form with one page and one section, under a technical name made from its title. */
export function addForm(title: string, by: string): Promise<string> {
  return transaction(async (tx) => {
    // Two people who begin forms of one title at once get two.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended('new form', 0))`);
    const { document } = schema;
    const there = await tx
      .select({ name: document.name })
      .from(document)
      .where(eq(document.kind, 'form'));
    const name = nameFor(title, new Set(there.map((form) => form.name)));
    const form = FormSchema.parse({
      name,
      title,
      pages: [
        { name: 'first_page', title, sections: [{ name: 'first_section', title, fields: [] }] },
      ],
    });
    await saveDocument({ kind: 'form', name }, form, 0, by, tx);
    return name;
  });
}

/** Saves a definition made from revision `from`. Throws a Refusal (422) for one that cannot be. */
export async function saveDefinition(form: Form, from: number, by: string): Promise<Saved<Form>> {
  if (from === 0) throw new Refusal(404, `There is no form "${form.name}".`);
  const [flaw] = flawsOf(form, await readTables());
  if (flaw !== undefined) throw new Refusal(422, `${flaw.path.join('.')}: ${flaw.says}`);
  return saveDocument({ kind: 'form', name: form.name }, form, from, by);
}

/** Throws a Refusal (404) when there is no such form. */
export async function needForm(name: string): Promise<void> {
  if (!(await isThere({ kind: 'form', name })))
    throw new Refusal(404, `There is no form "${name}".`);
}
