/** The head of a workspace: its title, its people, and how they write. */
import * as z from 'zod';
import { DATE_STYLES, type DateStyle } from '../form/date-style';
import { NUMBER_STYLES, type NumberStyle } from '../form/number-style';
import { KEPT_FILLINGS, KEPT_FILLINGS_DAYS } from '../limits';
import { PersonSchema, RoleSchema, type Person, type Role } from '../form/table';

export interface Head {
  title: string;
  roles: Role[];
  people: Person[];
  /** How dates are written for people; as they are stored unless said. */
  dates?: DateStyle | undefined;
  /** Their decimal mark; a point unless said. */
  numbers?: NumberStyle | undefined;
  /** What of filling-ins is kept; nothing unless said. */
  fillings?: KeptFillings | undefined;
}

/** How the steps of filling-ins are kept, to be done again on the next version of their form. */
export const KeptFillingsSchema = z.strictObject({
  most: z.int().min(1).max(KEPT_FILLINGS).describe('So many of each form; the oldest go.'),
  days: z.int().min(1).max(KEPT_FILLINGS_DAYS).describe('After so many days they go.'),
  masked: z.boolean().describe('Texts are masked before they are kept.'),
});
export type KeptFillings = z.infer<typeof KeptFillingsSchema>;

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
  fillings: KeptFillingsSchema.optional().describe(
    'How the steps of filling-ins are kept, to be done again before a release: not at all unless said.',
  ),
};

/** The head alone, in the order in which its file has it, without what is not said. */
export function headOf({ title, roles, people, dates, numbers, fillings }: Head): Head {
  return {
    title,
    roles,
    people,
    ...(dates === undefined ? {} : { dates }),
    ...(numbers === undefined ? {} : { numbers }),
    ...(fillings === undefined ? {} : { fillings }),
  };
}
