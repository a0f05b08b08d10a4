/** The Zod schemas of what goes into a session, for every host that reads it from outside. */
import { z } from 'zod';
import { FieldSchema, MOST_ROWS, Name } from '../form/definition';
import { ServiceMood } from '../form/service';
import { RoleSchema } from '../form/table';
import type { Value } from '../form/value';
import type { TimedStep } from './step';

export const ValueSchema: z.ZodType<Value> = z
  .union([z.string().max(100_000), z.number(), z.boolean(), z.null(), z.array(z.json()).max(10_000), z.record(z.string(), z.json())])
  .meta({ description: 'A value as plain JSON; empty is null.' }) as z.ZodType<Value>;

export const ValuesSchema = z.record(Name, ValueSchema);

const PartName = z.string().min(1).max(200);

export const StepSchema = z.union([
  z.strictObject({ set: PartName, to: ValueSchema }),
  z.strictObject({ input: PartName, to: ValueSchema }),
  z.strictObject({ focus: PartName }),
  z.strictObject({ blur: PartName }),
  z.strictObject({ click: PartName }),
  z.strictObject({ wait: z.number().int().min(0).max(31_536_000_000).meta({ description: 'Milliseconds.' }) }),
  z.strictObject({ turnTo: PartName }),
  z.strictObject({ addRow: PartName, with: z.union([z.record(Name, ValueSchema), z.array(z.record(Name, ValueSchema)).max(MOST_ROWS)]).optional().meta({ description: 'The cells given; a list adds several rows at once.' }) }),
  z.strictObject({ removeRow: PartName }),
  z.strictObject({ moveRow: PartName, to: z.number().int().min(0).max(MOST_ROWS) }),
  z.strictObject({ next: z.literal(true) }),
  z.strictObject({ previous: z.literal(true) }),
  z.strictObject({
    answer: PartName.meta({ description: 'A service and its function, such as ship_register.find: its oldest call is answered.' }),
    with: ValueSchema.optional(),
    fails: z.string().min(1).optional(),
    after: z.number().int().min(0).max(31_536_000_000).optional().meta({ description: 'Milliseconds that pass before.' }),
  }),
  z.strictObject({ fromChild: PartName, to: ValueSchema }),
  z.strictObject({ submit: z.literal(true) }),
]);

/** A step at a time of the session's clock, in milliseconds after the opening. */
const at = { at: z.number().min(0).max(31_536_000_000).optional() };
export const TimedStepSchema: z.ZodType<TimedStep> = z.union(StepSchema.options.map((option) => option.extend(at)));

/** By `name` of a service, or `name.function`. */
export const ServiceMoods = z.record(z.string().regex(/^[a-z][a-z0-9_]*(?:\.[a-z][a-z0-9_]*)?$/), ServiceMood);

export const OpeningSchema = z.strictObject({
  person: z.strictObject({ key: z.string(), name: z.string(), role: RoleSchema.shape.key }),
  record: z.strictObject({ id: z.string(), values: ValuesSchema }).nullable(),
  launch: ValuesSchema,
  clock: z.number().int(),
  seed: z.number().int(),
  newId: z.string(),
  viewing: z.boolean().optional(),
  records: z.array(z.strictObject({ id: z.string(), values: ValuesSchema })).optional(),
  parent: z
    .strictObject({ form: Name, record: z.string(), fields: z.array(FieldSchema), values: ValuesSchema })
    .nullable()
    .optional(),
  services: ServiceMoods.optional(),
});
