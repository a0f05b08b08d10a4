/** The head of a workspace: its title, its people, and how they write. */
import * as z from 'zod';
import { DATE_STYLES, type DateStyle } from '../form/date-style';
import { NUMBER_STYLES, type NumberStyle } from '../form/number-style';
import { PersonSchema, RoleSchema, type Person, type Role } from '../form/table';

export interface Head {
  title: string;
  roles: Role[];
  people: Person[];
  /** How dates are written for people; as they are stored unless said. */
  dates?: DateStyle | undefined;
  /** Their decimal mark; a point unless said. */
  numbers?: NumberStyle | undefined;
}

/** How each part of a head is read, wherever one comes in; some places ask for more. */
export const HEAD_SHAPE = {
  title: z.string(),
  roles: z.array(RoleSchema),
  people: z.array(PersonSchema).min(1),
  dates: z
    .enum(DATE_STYLES)
    .optional()
    .describe('How dates are written for people: as YYYY-MM-DD unless said.'),
  numbers: z
    .enum(NUMBER_STYLES)
    .optional()
    .describe('The decimal mark that people write: a point unless said.'),
};

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
