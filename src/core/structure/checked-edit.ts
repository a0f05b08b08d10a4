/** An edit of the structure that leaves a sound definition, or is not done. */
import { FormSchema, type Form } from '../form/definition';
import { definitionErrors } from '../form/integrity';
import type { Table } from '../form/table';
import { edited, InvalidEdit, type Edit } from './edit';

/** Gives the form as edited. Throws InvalidEdit for what cannot be done, and what would be no sound definition. */
export function editedSoundly(form: Form, edit: Edit, tables: readonly Table[]): Form {
  const next = edited(form, edit);
  const [error] = definitionErrors(next, tables);
  if (error !== undefined)
    throw new InvalidEdit(
      `${error.path.at(-1) === 'name' ? '' : `${String(error.path.at(-1))}: `}${error.says}`,
    );
  const read = FormSchema.safeParse(next);
  if (read.success) return next;
  const { path, message } = read.error.issues[0]!;
  throw new InvalidEdit(`${path.at(-1)?.toString() ?? 'the form'}: ${message}`);
}
