/** The shape of what a child's bench hands to its parent's. */
import * as z from 'zod';
import { Name } from '@/core/form/definition';
import { ValueSchema } from '@/core/session/schema';

export const Handed = z.strictObject({
  form: Name,
  record: z.string(),
  sets: z.array(z.strictObject({ set: z.string(), to: ValueSchema })),
});
export type Handed = z.infer<typeof Handed>;
