/** What a comparison's worker is asked and what it replies; each read by its schema on the other side. */
import * as z from 'zod';
import { USUAL_REPLIES } from './work-serve';
import type { Compared } from '../core/compare/compare';
import type { Difference } from '../core/compare/difference';
import { AtSchema, FormRequestSchema, WaySchema } from './search-calls';

const LineOfScript = z.strictObject({ script: z.string(), line: z.number() });

export const VersionSchema = FormRequestSchema.extend({
  /** The behaviours that run and the shared modules that they use. */
  sources: z.array(z.strictObject({ name: z.string(), text: z.string() })),
});

export type VersionRequest = z.input<typeof VersionSchema>;

export const CompareRequestSchema = z.strictObject({
  before: VersionSchema,
  after: VersionSchema,
  change: z.strictObject({
    words: z.array(z.string()).readonly(),
    running: z.strictObject({
      before: z.array(LineOfScript).readonly(),
      after: z.array(LineOfScript).readonly(),
    }),
  }),
  seed: z.int(),
  sessions: z.int().positive(),
  /** Milliseconds since 1970 after which no further session is begun; null for none. */
  until: z.number().nullable(),
});
export type CompareRequest = z.input<typeof CompareRequestSchema>;

export const DifferenceSchema = z.strictObject({
  part: z.string(),
  aspect: z.string(),
  before: z.unknown(),
  after: z.unknown(),
  way: WaySchema,
  lines: z.strictObject({ before: AtSchema.nullable(), after: AtSchema.nullable() }),
  follows: z.string().nullable(),
  also: z.array(z.strictObject({ part: z.string(), aspect: z.string() })),
}) as unknown as z.ZodType<Difference>;

const ComparedSchema: z.ZodType<Compared> = z.strictObject({
  differences: z.array(DifferenceSchema),
  sessions: z.number(),
  lines: z.array(
    LineOfScript.extend({
      in: z.enum(['before', 'after']),
      isReached: z.boolean(),
    }),
  ),
  cut: z.boolean(),
});

export const CompareReplySchema = z.discriminatedUnion('type', [
  ...USUAL_REPLIES,
  z.strictObject({
    type: z.literal('progress'),
    sessions: z.number(),
    differences: z.array(DifferenceSchema),
  }),
  z.strictObject({ type: z.literal('done'), compared: ComparedSchema }),
]);
export type CompareReply = z.infer<typeof CompareReplySchema>;
