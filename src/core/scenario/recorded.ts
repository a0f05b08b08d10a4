/** A recording in the terms of scenarios: how it was opened, whom and what it finds there, and whether it ends as it did. */
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { equal } from '../form/value';
import type { Open } from './definition';
import type { Recording } from './recording';
import { rowValues, type Seen } from './seen';
import type { Person } from '../form/table';
import type { FormRecords, SampleRecord } from './opening';
import type { Opening } from '../session/step';

/** What says the same as the opening of a recording, among the cast that `castOf` gives. */
export function openOf(opening: Opening): Open {
  const { person, record, launch, clock, zone, seed, viewing, parent, services } = opening;
  return {
    as: person.key,
    record: record?.id ?? null,
    launch,
    clock: new Date(clock).toISOString(),
    ...(zone === undefined ? {} : { zone }),
    seed,
    ...(viewing === undefined ? {} : { viewing }),
    ...(parent == null ? {} : { parent: { form: parent.form, record: parent.record } }),
    ...(services === undefined ? {} : { services }),
  };
}

interface WholeCast {
  people: Person[];
  records: SampleRecord[];
  forms: FormRecords[];
}

/** The cast with the person, record and parent as the recording had them, in place of those of today. */
export function castOf({ person, record, parent }: Opening, cast: WholeCast): WholeCast {
  return {
    people: [
      { key: person.key, name: person.name, roles: [...person.roles] },
      ...cast.people.filter(({ key }) => key !== person.key),
    ],
    records:
      record === null
        ? cast.records
        : [record, ...cast.records.filter(({ id }) => id !== record.id)],
    forms:
      parent == null
        ? cast.forms
        : [asParent(parent), ...cast.forms.filter(({ form }) => form.name !== parent.form)],
  };
}

/** The form that it was opened from, of which a recording holds the fields alone. */
function asParent({ form, fields, record, values }: NonNullable<Opening['parent']>): FormRecords {
  return {
    form: {
      name: form,
      title: form,
      pages: [{ name: 'page', title: form, sections: [{ name: 'section', title: form, fields }] }],
    },
    records: [{ id: record, values }],
  };
}

/** The fields that hold other values than the person saw; null where nobody knows what they saw. */
export function endedOtherwise(form: Form, ended: Recording['ended'], seen: Seen): string[] | null {
  if (ended === null) return null;
  return fieldsOf(form).flatMap(({ name, label }) => {
    const now =
      seen.rows[name] === undefined ? (seen.parts[name]?.value ?? null) : rowValues(seen, name);
    return equal(now, ended[name] ?? null) ? [] : [label];
  });
}
