/** How kept steps are read, apart so that pages need not load it. */
import * as z from 'zod';
import { OpeningSchema, TimedStepSchema } from '../session/schema';
import type { KeptSteps } from './kept-steps';

export const KeptStepsSchema: z.ZodType<KeptSteps> = z.strictObject({
  opening: OpeningSchema,
  steps: z.array(TimedStepSchema),
});
