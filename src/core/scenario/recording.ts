/**
 * A recording: a filling-in as somebody did it, kept to be looked into. It holds how the form was opened and every step
 * with its time, so that it can be played again to the same end, in the release that it happened in or in any later one.
 */
import * as z from 'zod';
import { Name } from '../form/definition';
import { LARGEST_INTEGER, STEPS_PER_SESSION } from '../limits';
import { OpeningSchema, TimedStepSchema, ValuesSchema } from '../session/schema';

/** Why it was kept. */
export const Because = z.enum([
  /** A person asked for it. */
  'asked',
  /** The server could not do a step that the browser had done. */
  'refused',
  /** The server worked out other values than the browser showed. */
  'differs',
  /** A script took too long on the server. */
  'too long',
  /** A script failed on the server. */
  'failed',
]);
export type Because = z.infer<typeof Because>;

export const RecordingSchema = z.strictObject({
  $schema: z.string().optional(),
  recording: z.literal(1).describe('The version of this format.'),
  form: Name,
  release: z
    .int()
    .min(1)
    .max(LARGEST_INTEGER)
    .nullable()
    .describe('The number of the release that it happened in; null for none.'),
  keptAt: z.iso.datetime(),
  because: Because,
  says: z.string().max(2000).describe('What the person, or the server, said of it.'),
  masked: z.boolean().describe('What is not known to be harmless was replaced before it was kept.'),
  opening: OpeningSchema,
  steps: z.array(TimedStepSchema).max(STEPS_PER_SESSION),
  ended: ValuesSchema.nullable().describe(
    'The values that the person saw at the end, where they are known.',
  ),
});
export type Recording = z.infer<typeof RecordingSchema>;

/** A recording in the list of them. */
export interface RecordingHead {
  id: number;
  form: string;
  release: number | null;
  because: Because;
  says: string;
  keptBy: string;
  keptAt: string;
  /** The record that the filling-in was saved as. */
  record: string | null;
}
