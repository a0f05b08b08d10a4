/** What the two workers for scripts can be asked: the one that checks and the one that compiles. */
import * as z from 'zod';
import { FormSchema } from '../core/form/definition';
import { ServiceSchema } from '../core/form/service';
import { RoleSchema, TableSchema } from '../core/form/table';

/** All that the behaviours of a form can reach. */
const Surface = z.object({
  form: FormSchema,
  tables: z.array(TableSchema).readonly(),
  services: z.array(ServiceSchema).readonly(),
  roles: z.array(RoleSchema).readonly(),
});
const Source = z.strictObject({ name: z.string(), text: z.string() });
const Name = z.string();
const Position = z.number();
const Identifier = z.string().regex(/^[A-Za-z_$][\w$]*$/);
/** Of what was found, its place and code. */
const Reported = z.object({ from: z.number(), to: z.number(), code: z.string() });

export const LANGUAGE_CALLS = {
  surround: z.tuple([Surface]),
  put: z.tuple([Source]),
  remove: z.tuple([Name]),
  diagnose: z.tuple([Source]),
  complete: z.tuple([Source, Position]),
  completeAsked: z.tuple([Source.nullable(), z.number(), z.string().max(2000)]),
  describe: z.tuple([Name, Position, z.string()]),
  explain: z.tuple([Name, Position]),
  signature: z.tuple([Source, Position]),
  define: z.tuple([Name, Position]),
  references: z.tuple([Name, Position]),
  rename: z.tuple([Name, Position, Identifier]),
  compilerFixes: z.tuple([Name, Reported]),
  format: z.tuple([Source, Position]),
  idleParts: z.tuple([]),
  mentions: z.tuple([z.array(Source)]),
  change: z.tuple([z.array(Source), z.array(Source)]),
  map: z.tuple([]),
};

const Watch = z.strictObject({ id: z.number(), line: z.number(), expression: z.string() });

export const COMPILER_CALLS = {
  compile: z.tuple([Source]),
  compileDetailed: z.tuple([Source, z.array(Watch)]),
  compileMutants: z.tuple([Source, FormSchema, z.int().min(1)]),
  writers: z.tuple([z.array(Source)]),
  stopLine: z.tuple([Source, z.number()]),
  expressionFault: z.tuple([z.string().max(2000)]),
};
