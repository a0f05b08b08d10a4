/** What a search's worker is asked and what it replies; each read by its schema on the other side. */
import * as z from 'zod';
import { USUAL_REPLIES } from './work-serve';
import { KINDS, type Finding } from '../core/explore/finding';
import type { Mentions } from '../core/explore/mentions';
import type { Searched } from '../core/explore/search';
import { MaterialSchema } from '../core/sandbox/protocol';
import { LineSchema, OpeningSchema, StepSchema, ValuesSchema } from '../core/session/schema';
import { PersonSchema } from '../core/form/table';

const Names = z.array(z.string());

const MentionsSchema: z.ZodType<Mentions> = z.strictObject({
  numbers: z.array(z.number()),
  compared: z.record(z.string(), z.array(z.number())),
  texts: Names,
  dates: Names,
  times: Names,
  patterns: Names,
  names: Names,
  words: Names,
  launch: Names,
  members: z.array(
    z.strictObject({
      behaviour: z.string(),
      line: z.number(),
      part: z.string(),
      aspect: z.string(),
      written: z.boolean(),
    }),
  ),
  conditions: Names,
  asks: z.strictObject({
    length: z.boolean(),
    month: z.boolean(),
    clock: z.boolean(),
    calls: z.boolean(),
  }),
});

export const WaySchema = z.strictObject({
  opening: OpeningSchema,
  steps: z.array(StepSchema),
});

/** A form as it is searched or compared. */
export const FormRequestSchema = z.strictObject({
  /** Traced. */
  material: MaterialSchema,
  people: z.array(PersonSchema),
  records: z.array(z.strictObject({ id: z.string(), values: ValuesSchema })),
  /** Records of other forms that the form may be opened from. */
  parents: z.array(OpeningSchema.shape.parent.unwrap().unwrap()).default([]),
  clock: z.number(),
  /** What people did in filling-ins, from which walks begin too. */
  done: z.array(WaySchema).default([]),
  mentions: MentionsSchema,
});
export type FormRequest = z.input<typeof FormRequestSchema>;

export const SearchRequestSchema = FormRequestSchema.extend({
  seed: z.int(),
  sessions: z.int().positive(),
  /** Milliseconds since 1970 after which no further session is begun; null for none. */
  until: z.number().nullable(),
  /** Found before, in other code perhaps: looked at first. */
  known: z.array(z.lazy(() => FindingSchema)).default([]),
});
export type SearchRequest = z.input<typeof SearchRequestSchema>;

export const AtSchema = z.strictObject({
  behaviour: z.string(),
  line: LineSchema.nullable(),
  tie: LineSchema.optional(),
});

export const FindingSchema = z.strictObject({
  kind: z.enum(KINDS),
  level: z.enum(['wrong', 'may']),
  part: z.string(),
  aspect: z.string(),
  lines: z.array(AtSchema),
  says: z.string(),
  way: WaySchema,
  other: WaySchema.nullable(),
  met: z.strictObject({ one: z.unknown(), other: z.unknown() }).nullable(),
  also: z.array(z.enum(KINDS)),
}) as unknown as z.ZodType<Finding>;

export const SearchedSchema: z.ZodType<Searched> = z.strictObject({
  findings: z.array(FindingSchema),
  sessions: z.number(),
  steps: z.number(),
  cut: z.boolean(),
  reached: z.strictObject({
    fields: z.number(),
    filled: z.number(),
    conditions: z.number(),
    bothWays: z.number(),
    unseen: Names.readonly(),
  }),
});

export const SearchReplySchema = z.discriminatedUnion('type', [
  ...USUAL_REPLIES,
  /** What is still there of what was known. */
  z.strictObject({ type: z.literal('again'), findings: z.array(FindingSchema) }),
  z.strictObject({
    type: z.literal('progress'),
    sessions: z.number(),
    findings: z.array(FindingSchema),
  }),
  z.strictObject({ type: z.literal('done'), searched: SearchedSchema }),
]);
export type SearchReply = z.infer<typeof SearchReplySchema>;
