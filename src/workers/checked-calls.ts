/** Functions as a worker lets them be called from outside: what each is given is read by its schema first. */
import type * as z from 'zod';

type Schemas = Readonly<Record<string, z.ZodType<readonly unknown[]>>>;

/** Functions by name, each taking what the schema of that name reads. */
export type Calls<S extends Schemas> = {
  [Name in keyof S]: (...given: z.infer<S[Name]> & unknown[]) => unknown;
};

/** The same functions, each throwing a ZodError for what its schema does not take. */
export function checkedCalls<S extends Schemas, C extends Calls<S>>(schemas: S, calls: C): C {
  return Object.fromEntries(
    Object.entries(calls).map(([name, call]) => [
      name,
      (...given: unknown[]) => call(...(schemas[name]!.parse(given) as Parameters<typeof call>)),
    ]),
  ) as unknown as C;
}
