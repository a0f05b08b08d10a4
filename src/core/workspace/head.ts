/** The head of a workspace: its title, its people, and how they write. */
import type { DateStyle } from '../form/date-style';
import type { NumberStyle } from '../form/number-style';
import type { Person, Role } from '../form/table';

export interface Head {
  title: string;
  roles: Role[];
  people: Person[];
  /** How dates are written for people; as they are stored unless said. */
  dates?: DateStyle | undefined;
  /** Their decimal mark; a point unless said. */
  numbers?: NumberStyle | undefined;
}

/** The head alone, in the order in which its file has it, without what is not said. */
export function headOf({ title, roles, people, dates, numbers }: Head): Head {
  return {
    title,
    roles,
    people,
    ...(dates === undefined ? {} : { dates }),
    ...(numbers === undefined ? {} : { numbers }),
  };
}
