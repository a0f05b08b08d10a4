/** The messages between the bench and its two workers for scripts: the one that checks and the one that compiles. */
import * as z from 'zod';
import { FormSchema } from '../core/form/definition';
import { ServiceSchema } from '../core/form/service';
import { RoleSchema, TableSchema } from '../core/form/table';

/** All that the behaviours of a form can reach. */
const Surface = z.object({
  form: FormSchema,
  tables: z.array(TableSchema),
  services: z.array(ServiceSchema),
  roles: z.array(RoleSchema),
});

export type SurfaceMessage = z.infer<typeof Surface>;

const Source = z.strictObject({ name: z.string(), text: z.string() });

export const LanguageRequest = z.discriminatedUnion('do', [
  z.strictObject({ id: z.number(), do: z.literal('surround'), surface: Surface }),
  z.strictObject({ id: z.number(), do: z.literal('put'), source: Source }),
  z.strictObject({ id: z.number(), do: z.literal('diagnose'), source: Source }),
  z.strictObject({
    id: z.number(),
    do: z.literal('complete'),
    source: Source,
    position: z.number(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('describe'),
    name: z.string(),
    position: z.number(),
    label: z.string(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('explain'),
    name: z.string(),
    position: z.number(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('signature'),
    source: Source,
    position: z.number(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('define'),
    name: z.string(),
    position: z.number(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('references'),
    name: z.string(),
    position: z.number(),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('rename'),
    name: z.string(),
    position: z.number(),
    to: z.string().regex(/^[A-Za-z_$][\w$]*$/),
  }),
  z.strictObject({
    id: z.number(),
    do: z.literal('compilerFixes'),
    name: z.string(),
    at: z.strictObject({ from: z.number(), to: z.number(), code: z.string() }),
  }),
  z.strictObject({ id: z.number(), do: z.literal('format'), source: Source, position: z.number() }),
  z.strictObject({ id: z.number(), do: z.literal('remove'), name: z.string() }),
  z.strictObject({ id: z.number(), do: z.literal('idleParts') }),
  z.strictObject({ id: z.number(), do: z.literal('map') }),
]);
export type LanguageRequest = z.infer<typeof LanguageRequest>;

export const CompileRequest = z.strictObject({
  id: z.number(),
  do: z.literal('compile'),
  source: Source,
});
export type CompileRequest = z.infer<typeof CompileRequest>;
