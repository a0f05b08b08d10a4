/**
 * Services: stand-ins for remote systems that scripts can call (1-words). What one answers comes from a table or from a
 * small script, after a delay on the session's clock; it can be told to be slow or to fail.
 */
import * as z from 'zod';
import { Name } from './definition';
import { SCALAR_KINDS } from './scalar';

const Milliseconds = z.int().min(0).max(600_000);

export const ParameterSchema = z.strictObject({
  name: Name,
  label: z.string().optional(),
  kind: z.enum(SCALAR_KINDS),
  optional: z.boolean().optional(),
});

const FromTable = z.strictObject({
  from: z.literal('table'),
  table: Name,
  where: z.record(Name, Name).describe('Columns, each with the parameter it has to equal.'),
  many: z
    .boolean()
    .optional()
    .describe('All rows that fit as a list; otherwise the first, or null.'),
});

const FromScript = z.strictObject({
  from: z.literal('script'),
  script: z
    .string()
    .describe(
      'The body of a function: it has the parameters and `tables` by name and returns what is answered.',
    ),
  gives: z.string().describe('The TypeScript type of what it returns.'),
});

export const FunctionSchema = z.strictObject({
  title: z.string().optional(),
  parameters: z.array(ParameterSchema),
  delay: Milliseconds.optional(),
  answers: z.discriminatedUnion('from', [FromTable, FromScript]),
});
export type ServiceFunction = z.infer<typeof FunctionSchema>;

/** `services/NAME.json`. */
export const ServiceShape = z.strictObject({
  $schema: z.string().optional(),
  title: z.string().min(1),
  delay: Milliseconds.optional().describe('Milliseconds until an answer comes: 300 unless said.'),
  slow: z
    .strictObject({ every: z.int().min(1).max(1_000_000), delay: Milliseconds })
    .optional()
    .describe('Every nth call takes this long instead.'),
  fails: z.string().optional().describe('Every call fails, for this reason.'),
  functions: z.record(Name, FunctionSchema),
});
export type ServiceShape = z.infer<typeof ServiceShape>;

export const ServiceSchema = z.strictObject({
  name: Name,
  ...ServiceShape.omit({ $schema: true }).shape,
});
export type Service = z.infer<typeof ServiceSchema>;

/** How a service, or one function of it, behaves for one session instead of as defined. */
export const ServiceMood = z.strictObject({
  delay: Milliseconds.optional(),
  fails: z.string().min(1).optional(),
  byHand: z.boolean().optional().describe('Nothing comes until an `answer` step.'),
});
export type ServiceMood = z.infer<typeof ServiceMood>;
