/** What a worker is asked that does filling-ins again on two versions, and what it replies. */
import * as z from 'zod';
import type { Difference } from '../core/compare/difference';
import { OpeningSchema, TimedStepSchema } from '../core/session/schema';
import { DifferenceSchema, VersionSchema } from './compare-calls';
import { USUAL_REPLIES } from './work-serve';

export const ReplayRequestSchema = z.strictObject({
  before: VersionSchema,
  after: VersionSchema,
  done: z.array(z.strictObject({ opening: OpeningSchema, steps: z.array(TimedStepSchema) })),
});
export type ReplayRequest = z.input<typeof ReplayRequestSchema>;

/** One that ends differently, by its place among those asked about. */
export interface EndsDifferently {
  at: number;
  differences: readonly Difference[];
}

export const ReplayReplySchema = z.discriminatedUnion('type', [
  ...USUAL_REPLIES,
  z.strictObject({ type: z.literal('progress'), done: z.number() }),
  z.strictObject({
    type: z.literal('done'),
    differing: z.array(z.strictObject({ at: z.number(), differences: z.array(DifferenceSchema) })),
  }),
]);
export type ReplayReply = z.infer<typeof ReplayReplySchema>;
