/** What an engine asks the worker in which its sandbox runs; what that replies stands in `reply.ts`. */
import * as z from 'zod';
import { MUTANTS } from '../wire/layout';
import { FormSchema } from '../form/definition';
import { ServiceSchema } from '../form/service';
import { TableSchema } from '../form/table';
import { LineSchema, OpeningSchema, TimedStepSchema } from '../session/schema';
import type { Material } from '../session/material';
import type { Wanted } from './inspector';

export const CompiledSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  code: z.string().nullable(),
  /** Absent from releases made before expressions were numbered; those were compiled untraced and report none. */
  expressions: z.array(z.string()).default([]),
  /** Absent from releases made before conditions were told apart. */
  conditions: z.array(z.int()).default([]),
  failure: z.object({ code: z.string(), says: z.string(), line: LineSchema.nullable() }).nullable(),
});

export const MaterialSchema = z.strictObject({
  form: FormSchema,
  tables: z.array(TableSchema),
  services: z.array(ServiceSchema),
  answering: z.array(CompiledSchema),
  scripts: z.array(CompiledSchema),
  /** Absent from releases made before there were shared modules. */
  modules: z.array(CompiledSchema).default([]),
  traced: z.boolean(),
  invariants: z.boolean().optional(),
  mutant: z.int().min(0).max(MUTANTS).optional(),
}) as unknown as z.ZodType<Material>;

const Moment = z.strictObject({ entry: z.number().nullable(), detail: z.number().nullable() });

export const WantedSchema: z.ZodType<Wanted> = z.strictObject({
  runs: z.union([z.array(z.number()), z.literal('all')]),
  moments: z.array(Moment),
  turned: z.array(z.strictObject({ script: z.string(), site: z.number() })),
  asks: z.boolean(),
  answers: z.boolean(),
});

export const RequestSchema = z.discriminatedUnion('do', [
  z.strictObject({
    id: z.number(),
    do: z.literal('load'),
    material: MaterialSchema,
    watched: z.boolean(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('play'),
    opening: OpeningSchema,
    steps: z.array(TimedStepSchema),
    brief: z.boolean(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('try'),
    opening: OpeningSchema,
    steps: z.array(TimedStepSchema),
    mutant: z.int().min(0).max(MUTANTS),
    reachedOf: z.int().min(0).max(MUTANTS),
  }),
  z.strictObject({ id: z.number(), do: z.literal('step'), step: TimedStepSchema }),
  z.strictObject({ id: z.number(), do: z.literal('identify'), newId: z.string() }),
  z.strictObject({
    id: z.number(),
    do: z.literal('inspect'),
    opening: OpeningSchema,
    steps: z.array(TimedStepSchema),
    wanted: WantedSchema,
  }),
]);
export type Request = z.infer<typeof RequestSchema>;
