/** The messages between an engine and the worker in which its sandbox runs. */
import * as z from 'zod';
import { FormSchema } from '../form/definition';
import { ServiceSchema } from '../form/service';
import { TableSchema } from '../form/table';
import { OpeningSchema, TimedStepSchema } from '../session/schema';
import type { Material } from '../session/session';
import type { Answer } from '../session/step';
import type { Listens } from './sandbox';

const CompiledSchema = z.strictObject({
  name: z.string(),
  title: z.string(),
  code: z.string().nullable(),
  /** Absent from releases made before expressions were numbered; those were compiled untraced and report none. */
  expressions: z.array(z.string()).default([]),
  failure: z.object({ code: z.string(), says: z.string(), line: z.number().nullable() }).nullable(),
});

export const MaterialSchema = z.strictObject({
  form: FormSchema,
  tables: z.array(TableSchema),
  services: z.array(ServiceSchema),
  answering: z.array(CompiledSchema),
  scripts: z.array(CompiledSchema),
  traced: z.boolean(),
}) as unknown as z.ZodType<Material>;

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
  z.strictObject({ id: z.number(), do: z.literal('step'), step: TimedStepSchema }),
]);
export type Request = z.infer<typeof RequestSchema>;

/** Of an answer, what became of its step. */
export type BriefAnswer = Pick<Answer, 'refused' | 'submit' | 'toParent'>;

/** Answers are made by the session itself; only their envelope is read again. */
export const ReplySchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('listens'),
    id: z.number(),
    listens: z.custom<Listens>((value) => typeof value === 'object'),
  }),
  z.object({
    type: z.literal('answers'),
    id: z.number(),
    answers: z.array(z.custom<Answer | BriefAnswer>((value) => typeof value === 'object')),
  }),
  /** The machine died; how is for the log alone. */
  z.object({ type: z.literal('died'), id: z.number(), how: z.string() }),
  z.object({ type: z.literal('failed'), id: z.number(), how: z.string() }),
  /** It is still at work. */
  z.object({ type: z.literal('alive') }),
  /** Where the machine is, while somebody looks for the script that got stuck. */
  z.object({ type: z.literal('at'), behaviour: z.string(), line: z.number() }),
]);
export type Reply = z.infer<typeof ReplySchema>;
