/** What a field begins with in a new entry: its default, or what its default comes from. */
import type { Field } from '../form/definition';
import type { Value } from '../form/value';
import { wallClock } from '../form/zone';
import type { Opening } from './step';
import { emptyOf } from '../form/traits';

const two = (n: number): string => String(n).padStart(2, '0');

/** `now` is the session's clock, in milliseconds since 1970-01-01T00:00:00Z; days and times are those of its zone. */
export function defaultOf(
  field: Field,
  person: Opening['person'],
  now: number,
  zone: string,
): Value {
  if ('default' in field && field.default !== undefined) return field.default;
  if (!('defaultFrom' in field) || field.defaultFrom === undefined) return emptyOf(field);
  const [year, month, day, hour, minute] = wallClock(zone, now)!;
  switch (field.defaultFrom) {
    case 'person_name':
      return person.name;
    case 'person_key':
      return person.key;
    case 'person_role':
      return person.roles[0] ?? null;
    case 'today':
      return `${String(year).padStart(4, '0')}-${two(month!)}-${two(day!)}`;
    case 'now':
      return field.kind === 'time'
        ? `${two(hour!)}:${two(minute!)}`
        : `${new Date(now).toISOString().slice(0, 19)}Z`;
  }
}
