/** Saving records: revisions as for everything else. */
import type { Values } from '../../core/form/value';
import { ValuesSchema } from '../../core/session/schema';
import type { Transaction } from '../database/database';
import { saveRevised, type Saved } from '../revisions/save';

interface Key {
  form: string;
  id: string;
}

async function save(
  { form, id }: Key,
  values: Values | null,
  from: number,
  by: string,
  within?: Transaction,
): Promise<Saved<Values>> {
  const { saved, revision, content } = await saveRevised(
    { kind: 'record', form, name: id },
    values,
    from,
    by,
    within,
  );
  return saved
    ? { saved, revision }
    : {
        saved,
        theirs: { content: content === null ? null : ValuesSchema.parse(content), revision },
      };
}

/** Saves a record that no release made, from revision `from`, 0 for a new one. */
export function saveRecord(
  key: Key,
  values: Values,
  from: number,
  by: string,
  within?: Transaction,
): Promise<Saved<Values>> {
  return save(key, values, from, by, within);
}

/** Removes a record at revision `from`; its revisions stay. */
export function removeRecord(key: Key, from: number, by: string): Promise<Saved<Values>> {
  return save(key, null, from, by);
}
