/** Forms out as JSON Schema, and in from JSON Schema and HTML. */
import * as z from 'zod';
import { FORM_SOURCE_CHARACTERS } from '../../core/limits';
import type { TakenForm } from '../../core/interchange/taken';
import { transaction } from '../database/database';
import { saveDocument } from '../revisions/documents';
import { task } from '../machines/tasks';
import { existingForm, freeName } from './forms';
import { readHead, readScripts, readServices, readTables } from './read';

export const FormSource = z.strictObject({
  text: z.string().max(FORM_SOURCE_CHARACTERS),
  as: z.enum(['json-schema', 'html']),
  /** What the form is called where the source does not say. */
  called: z.string().trim().min(1).max(120),
});
export type FormSource = z.infer<typeof FormSource>;

/** A JSON Schema of what a form saves. Throws a Refusal (404) where there is none of that name. */
export async function jsonSchemaOf(name: string): Promise<object> {
  const form = await existingForm(name);
  const [{ roles }, tables, services, scripts] = await Promise.all([
    readHead(),
    readTables(),
    readServices(),
    readScripts(form),
  ]);
  return task('jsonSchema', {
    form,
    tables,
    services,
    roles,
    sources: scripts.map(({ name: script, text }) => ({ name: script, text })),
  });
}

/** What a source becomes. Throws a Refusal (422), in words, for one with nothing to take. */
export function takenFrom(source: FormSource): Promise<TakenForm> {
  return task('takenFrom', source);
}

/** Makes the form that a source becomes. Its technical name. */
export async function addFormFrom(source: FormSource, title: string, by: string): Promise<string> {
  const { form, behaviours } = await takenFrom(source);
  return transaction(async (tx) => {
    const name = await freeName(title, tx);
    await saveDocument({ kind: 'form', name }, { ...form, name, title }, 0, by, tx);
    for (const { name: behaviour, text } of behaviours)
      await saveDocument({ kind: 'behaviour', form: name, name: behaviour }, text, 0, by, tx);
    return name;
  });
}
