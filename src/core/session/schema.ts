/** The Zod schemas of what goes into a session, for every host that reads it from outside. */
import { z } from 'zod';
import { Name } from '../form/definition';
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
  z.strictObject({ submit: z.literal(true) }),
]);

/** A step at a time of the session's clock, in milliseconds after the opening. */
const at = { at: z.number().min(0).max(31_536_000_000).optional() };
export const TimedStepSchema: z.ZodType<TimedStep> = z.union(StepSchema.options.map((option) => option.extend(at)));

export const OpeningSchema = z.strictObject({
  person: z.strictObject({ key: z.string(), name: z.string(), role: RoleSchema.shape.key }),
  record: z.strictObject({ id: z.string(), values: ValuesSchema }).nullable(),
  launch: ValuesSchema,
  clock: z.number().int(),
  seed: z.number().int(),
  newId: z.string(),
});
