/** An edit of the structure that leaves a sound definition, or is not done. */
import { FormSchema, type Form } from '../form/definition';
import { flawsOf } from '../form/integrity';
import type { Table } from '../form/table';
import { edited, StructureFault, type Edit } from './edit';

/** Gives the form as edited. Throws StructureFault for what cannot be done, and what would be no sound definition. */
export function editedSoundly(form: Form, edit: Edit, tables: readonly Table[]): Form {
  const next = edited(form, edit);
  const [flaw] = flawsOf(next, tables);
  if (flaw !== undefined)
    throw new StructureFault(
      `${flaw.path.at(-1) === 'name' ? '' : `${String(flaw.path.at(-1))}: `}${flaw.says}`,
    );
  const read = FormSchema.safeParse(next);
  if (read.success) return next;
  const { path, message } = read.error.issues[0]!;
  throw new StructureFault(`${path.at(-1)?.toString() ?? 'the form'}: ${message}`);
}
