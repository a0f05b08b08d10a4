/** What fields begin with in a new entry: their default, or what their default comes from. */
import type { Field } from '../form/definition';
import { emptyOf } from '../form/traits';
import type { Value, Values } from '../form/value';
import { wallClock } from '../form/zone';
import type { Clock } from './clock';
import type { Situation } from './situation';

const two = (n: number): string => String(n).padStart(2, '0');

export class Defaults {
  constructor(
    private readonly situation: Situation,
    private readonly clock: Clock,
  ) {}

  /** Days and times are those of the session's zone. */
  of(field: Field): Value {
    if ('default' in field && field.default !== undefined) return field.default;
    if (!('defaultFrom' in field) || field.defaultFrom === undefined) return emptyOf(field);
    const { person } = this.situation.opening;
    const { now, zone } = this.clock;
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

  /** What a new row begins with, by cell. */
  ofCells(cells: readonly Field[]): Values {
    return Object.fromEntries(cells.map((cell) => [cell.name, this.of(cell)]));
  }
}
