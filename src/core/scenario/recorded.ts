/** How a recording was opened, in the terms in which scenarios say it, and those that it finds its people and records among. */
import type { Open } from './definition';
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
