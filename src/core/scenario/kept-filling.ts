/** What somebody did in a filling-in that was saved: kept for a while, to be done again on the next version of the form. */
import * as z from 'zod';
import { OpeningSchema, TimedStepSchema } from '../session/schema';

export const KeptStepsSchema = z.strictObject({
  opening: OpeningSchema,
  steps: z.array(TimedStepSchema),
});

export interface KeptFilling extends z.infer<typeof KeptStepsSchema> {
  id: number;
  record: string;
  /** The number of the release that it was done in. */
  release: number;
  masked: boolean;
  at: string;
}

export interface KeptFillingsPage {
  /** The newest first. */
  fillings: KeptFilling[];
  /** How many there are in all. */
  all: number;
}
