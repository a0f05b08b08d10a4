/** What a field begins with in a new entry: its default, or what its default comes from. */
import type { Field } from '../form/definition';
import { emptyOf } from '../form/kinds';
import type { Value } from '../form/value';
import type { Opening } from './step';

/** `now` is the session's clock, in milliseconds since 1970-01-01T00:00:00Z; days and times are those of UTC. */
export function defaultOf(field: Field, person: Opening['person'], now: number): Value {
  if ('default' in field && field.default !== undefined) return field.default;
  if (!('defaultFrom' in field) || field.defaultFrom === undefined) return emptyOf(field);
  const moment = new Date(now).toISOString();
  switch (field.defaultFrom) {
    case 'person_name':
      return person.name;
    case 'person_key':
      return person.key;
    case 'person_role':
      return person.role;
    case 'today':
      return moment.slice(0, 10);
    case 'now':
      return field.kind === 'time' ? moment.slice(11, 16) : `${moment.slice(0, 19)}Z`;
  }
}
