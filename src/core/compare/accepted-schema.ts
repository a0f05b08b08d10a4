/** How what was accepted is read, apart so that pages need not load it. */
import * as z from 'zod';
import { ValueSchema } from '../session/schema';
import { ACCEPTED_LINE, type Accepted } from './accepted';

const Line = z.string().max(ACCEPTED_LINE).nullable();

export const AcceptedSchema: z.ZodType<Accepted> = z.strictObject({
  part: z.string().max(200),
  aspect: z.string().max(40),
  before: ValueSchema,
  after: ValueSchema,
  lines: z.strictObject({ before: Line, after: Line }),
});
