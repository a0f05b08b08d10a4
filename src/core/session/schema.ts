/** The Zod schemas of what goes into a session, for every host that reads it from outside. */
import { CALLS_WAITING, EARLIEST_CLOCK, LATEST_CLOCK, ROWS_PER_FIELD } from '../limits';
import * as z from 'zod';
import { FieldSchema, Name } from '../form/definition';
import { ServiceMood } from '../form/service';
import { RoleSchema } from '../form/table';
import type { Value } from '../form/value';
import { isZone } from '../form/zone';
import type { StepKind, Steps, TimedStep } from './step';

export const ValueSchema: z.ZodType<Value> = z
  .union([
    z.string().max(100_000),
    z.number(),
    z.boolean(),
    z.null(),
    z.array(z.json()).max(10_000),
    z.record(z.string(), z.json()),
  ])
  .describe('A value as plain JSON; empty is null.') as z.ZodType<Value>;

/** A line of a script on the tape (`wire/line.ts`). */
export const LineSchema = z.union([
  z.int(),
  z.string().regex(/^shared\/[a-z0-9_-]+:\d+$/) as unknown as z.ZodType<`${string}:${number}`>,
]);

export const ValuesSchema = z.record(Name, ValueSchema);

/** Seeds that differ give other random numbers: 32 bits of them count. */
export const SEEDS = 2 ** 32;

const PartName = z.string().min(1).max(200);

const Milliseconds = z.int().min(0).max(31_536_000_000);

const steps = {
  set: z.strictObject({ set: PartName, to: ValueSchema }),
  input: z.strictObject({ input: PartName, to: ValueSchema }),
  focus: z.strictObject({ focus: PartName }),
  blur: z.strictObject({ blur: PartName }),
  click: z.strictObject({ click: PartName }),
  wait: z.strictObject({ wait: Milliseconds.describe('Milliseconds.') }),
  turnTo: z.strictObject({ turnTo: PartName }),
  addRow: z.strictObject({
    addRow: PartName,
    with: z
      .union([
        z.record(Name, ValueSchema),
        z.array(z.record(Name, ValueSchema)).max(ROWS_PER_FIELD),
      ])
      .optional()
      .describe('The cells given; a list adds several rows at once.'),
  }),
  removeRow: z.strictObject({ removeRow: PartName }),
  moveRow: z.strictObject({ moveRow: PartName, to: z.int().min(0).max(ROWS_PER_FIELD) }),
  next: z.strictObject({ next: z.literal(true) }),
  previous: z.strictObject({ previous: z.literal(true) }),
  answer: z.strictObject({
    answer: PartName.describe(
      'A service and its function, such as ship_register.find: its oldest call is answered unless which says another.',
    ),
    with: ValueSchema.optional(),
    fails: z.string().min(1).optional(),
    after: Milliseconds.optional().describe('Milliseconds that pass before.'),
    usual: z
      .boolean()
      .optional()
      .describe('As the service itself would answer, whatever its delay.'),
    which: z
      .int()
      .min(0)
      .max(CALLS_WAITING)
      .optional()
      .describe('Which of the calls of this name that wait, the oldest being 0.'),
  }),
  fromChild: z.strictObject({ fromChild: PartName, to: ValueSchema }),
  submit: z.strictObject({ submit: z.literal(true) }),
} satisfies { [K in StepKind]: z.ZodType<Steps[K]> };

export const StepSchema = z.union(
  Object.values(steps) as [(typeof steps)[StepKind], ...(typeof steps)[StepKind][]],
);

/** A step at a time of the session's clock, in milliseconds after the opening. */
const at = { at: z.number().min(0).max(31_536_000_000).optional() };
export const TimedStepSchema: z.ZodType<TimedStep> = z.union(
  StepSchema.options.map((option) => option.extend(at)),
);

/** By `name` of a service, or `name.function`. */
export const ServiceMoods = z.record(
  z.string().regex(/^[a-z][a-z0-9_]*(?:\.[a-z][a-z0-9_]*)?$/),
  ServiceMood,
);

export const Zone = z
  .string()
  .refine(isZone, { message: 'is not the name of a time zone, such as Europe/Lisbon' })
  .describe('The IANA name of a time zone; UTC unless said.');

export const OpeningSchema = z.strictObject({
  person: z.strictObject({
    key: z.string(),
    name: z.string(),
    roles: z.array(RoleSchema.shape.key).max(50).readonly(),
  }),
  record: z.strictObject({ id: z.string(), values: ValuesSchema }).nullable(),
  launch: ValuesSchema,
  clock: z.int().min(EARLIEST_CLOCK).max(LATEST_CLOCK),
  zone: Zone.optional(),
  seed: z.int().min(-SEEDS).max(SEEDS),
  newId: z.string(),
  viewing: z.boolean().optional(),
  records: z.array(z.strictObject({ id: z.string(), values: ValuesSchema })).optional(),
  parent: z
    .strictObject({
      form: Name,
      record: z.string(),
      fields: z.array(FieldSchema),
      values: ValuesSchema,
    })
    .nullable()
    .optional(),
  services: ServiceMoods.optional(),
});
