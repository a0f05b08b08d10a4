/** From what a scenario says of its opening to what a session takes. */
import type { Form } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { readLaunch } from '../form/launch';
import type { Person } from '../form/table';
import type { Values } from '../form/value';
import type { Opening } from '../session/step';
import type { Open, Scenario } from './definition';

/** The clock of scenarios that name none: a fixed moment, so that they come out the same every day. */
export const DEFAULT_CLOCK = '2031-05-02T09:00:00Z';

/** Saved sample data of a form. */
export interface SampleRecord {
  id: string;
  values: Values;
}

/** A form with its records. */
export interface FormRecords {
  form: Form;
  records: readonly SampleRecord[];
}

export interface NamedScenario {
  name: string;
  scenario: Scenario;
}

/** Where an opening finds its people and records. */
export interface Cast {
  people: readonly Person[];
  records: readonly SampleRecord[];
  /** Other forms with their records, for openings from a parent. */
  forms?: readonly FormRecords[];
  /** The scenarios of the form, for those that start as another one. */
  scenarios?: readonly NamedScenario[];
}

/** An opening that cannot be: it names somebody or something that is not there, or hands over what is not taken; the path leads into the scenario. */
export class NoSuchOpening extends Error {
  constructor(
    readonly path: string[],
    says: string,
  ) {
    super(says);
  }
}

export function openingOf(open: Open, form: Form, cast: Cast): Opening {
  const person = cast.people.find((p) => p.key === open.as);
  if (person === undefined)
    throw new NoSuchOpening(['open', 'as'], `there is no person "${open.as}"`);
  const record = open.record == null ? null : cast.records.find((r) => r.id === open.record);
  if (record === undefined)
    throw new NoSuchOpening(['open', 'record'], `there is no record "${open.record}"`);
  const launch = readLaunch(form, open.launch ?? {});
  if ('says' in launch) throw new NoSuchOpening(['open', 'launch', launch.name], launch.says);
  return {
    person: { key: person.key, name: person.name, roles: person.roles },
    record: record === null ? null : { id: record.id, values: record.values },
    launch: launch.launch,
    clock: Date.parse(open.clock ?? DEFAULT_CLOCK),
    seed: open.seed ?? 1,
    newId: 'new',
    records: cast.records.map(({ id, values }) => ({ id, values })),
    ...(open.zone === undefined ? {} : { zone: open.zone }),
    ...(open.viewing === undefined ? {} : { viewing: open.viewing }),
    ...(open.services === undefined ? {} : { services: open.services }),
    ...(open.parent === undefined ? {} : { parent: parentOf(open.parent, cast) }),
  };
}

function parentOf(
  { form: name, record: id }: NonNullable<Open['parent']>,
  cast: Cast,
): NonNullable<Opening['parent']> {
  const found = cast.forms?.find(({ form }) => form.name === name);
  if (found === undefined)
    throw new NoSuchOpening(['open', 'parent', 'form'], `there is no form "${name}"`);
  const record = found.records.find((one) => one.id === id);
  if (record === undefined)
    throw new NoSuchOpening(['open', 'parent', 'record'], `the form ${name} has no record "${id}"`);
  return asParent(found.form, record);
}

/** A record as the form that opens another one. */
export function asParent(form: Form, { id, values }: SampleRecord): NonNullable<Opening['parent']> {
  return { form: form.name, record: id, fields: fieldsOf(form), values };
}

/** The first person of each set of roles: to a form whoever has the same roles is the same. */
export function onePerRoles(people: readonly Person[]): Person[] {
  const byRoles = new Map<string, Person>();
  for (const person of people) {
    const roles = JSON.stringify(person.roles.toSorted());
    if (!byRoles.has(roles)) byRoles.set(roles, person);
  }
  return [...byRoles.values()];
}
