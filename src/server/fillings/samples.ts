/** Sample records: made on the bench before a form has a release, so that it can be tried as one that is there already. */
import { SAMPLES_PER_FORM } from '../../core/limits';
import type { Form } from '../../core/form/definition';
import { fieldsOf } from '../../core/form/fields';
import { accept } from '../../core/form/kinds';
import { indexOf } from '../../core/form/table-index';
import type { Table } from '../../core/form/table';
import type { Value, Values } from '../../core/form/value';
import { transaction } from '../database/database';
import { Refusal } from '../http/refusal';
import { nextNumber } from './record-number';
import { newestNumber } from '../releases/releases';
import { existingForm } from '../content/forms';
import { readTables } from '../content/read';
import { countRecords } from '../records/read';
import { saveRecord } from '../records/save';
import { emptyOf } from '../../core/form/traits';

/**
 * Keeps values as a sample record under the next number. Throws a Refusal: 404 without such a form, 409 once it has a
 * release, whose records come from filling it in, 422 for what is no value of its fields.
 */
export async function addSample(
  name: string,
  values: Values,
  by: string,
): Promise<{ id: string; values: Values }> {
  const form = await existingForm(name);
  if ((await newestNumber(name)) !== null)
    throw new Refusal(409, 'This form has a release. Fill it in to make a record.');
  if ((await countRecords(name)).count >= SAMPLES_PER_FORM)
    throw new Refusal(422, `A form has at most ${SAMPLES_PER_FORM} sample records.`);
  const kept = sampleOf(form, values, await readTables());
  const id = await nextNumber(name);
  await transaction((tx) => saveRecord({ form: name, id }, kept, 0, by, tx));
  return { id, values: kept };
}

/** The values that a record of the form can have; files are left out, since nobody keeps their content. */
function sampleOf(form: Form, values: Values, tables: readonly Table[]): Values {
  const fields = new Map(fieldsOf(form).map((field) => [field.name, field]));
  const table = (wanted: string) => indexOf(tables.find((one) => one.name === wanted)!);
  return Object.fromEntries(
    Object.entries(values).map(([name, value]): [string, Value] => {
      const field = fields.get(name);
      if (field === undefined) throw new Refusal(422, `The form has no field "${name}".`);
      if (field.kind === 'file') return [name, emptyOf(field)];
      const read = accept(value, field, { options: null, table });
      if (!read.ok) throw new Refusal(422, `${field.label} takes ${read.takes}.`);
      return [name, read.value];
    }),
  );
}
