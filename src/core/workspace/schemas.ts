/** The published JSON Schemas (2020-12) of every file of a workspace and of what the command line reads and prints. */
import * as z from 'zod';
import { FormSchema } from '../form/definition';
import { ServiceShape } from '../form/service';
import { TableShape } from '../form/table';
import { OpenSchema, ScenarioSchema } from '../scenario/definition';
import { StepSchema, ValuesSchema } from '../session/schema';
import { RecordsFile, WorkspaceFile } from './workspace';

/** What `tavro play` reads: an opening and steps, or the steps alone, done by the first person of the workspace. */
export const PlayInput = z.union([
  z.array(StepSchema),
  z.strictObject({ $schema: z.string().optional(), open: OpenSchema, steps: z.array(StepSchema) }),
]);

const Failure = z.object({
  code: z.string(),
  says: z.string(),
  behaviour: z.string(),
  line: z.number().int().nullable(),
  cycle: z.array(z.string()).optional(),
});

/** What `tavro play` prints. */
export const PlayResult = z.object({
  parts: z
    .record(
      z.string(),
      z.looseObject({ sort: z.string(), shown: z.boolean(), onScreen: z.boolean() }),
    )
    .meta({
      description:
        'Rows and their cells stand here too, by their place: cargo[0], cargo[0].weight.',
    }),
  '@record': z.string().nullable(),
  '@waiting': z.array(
    z.looseObject({
      behaviour: z.string(),
      line: z.number().int(),
      part: z.string().nullable(),
      calls: z.array(z.looseObject({ name: z.string() })),
    }),
  ),
  '@toParent': z.array(z.object({ set: z.string(), to: z.json() })),
  '@page': z.string().nullable(),
  '@replaced': z.string().nullable(),
  '@notice': z.object({ text: z.string(), tone: z.string() }).nullable(),
  '@submit': z
    .object({
      saved: z.boolean(),
      stoppedBy: z.string().nullable(),
      stops: z.array(z.object({ part: z.string().nullable(), says: z.string() })),
      id: z.string().nullable(),
      values: ValuesSchema,
      without: z.array(z.string()),
    })
    .nullable(),
  '@messages': z.array(z.object({ text: z.string(), tone: z.string(), behaviour: z.string() })),
  '@parent': z.array(z.object({ set: z.string(), to: z.json() })),
  '@log': z.array(
    z.object({ behaviour: z.string(), line: z.number().int(), values: z.array(z.json()) }),
  ),
  '@errors': z.array(Failure),
  '@refused': z.array(z.object({ step: z.number().int(), why: z.string() })),
  tape: z
    .array(
      z.looseObject({ n: z.number().int(), cause: z.number().int().nullable(), type: z.string() }),
    )
    .optional(),
});

/** What `tavro test --reporter json` prints. */
export const TestReport = z.object({
  passed: z.boolean(),
  scenarios: z.array(
    z.object({
      form: z.string(),
      file: z.string(),
      name: z.string(),
      title: z.string(),
      passed: z.boolean(),
      steps: z.number().int(),
      misses: z.array(
        z.object({
          step: z.number().int(),
          part: z.string(),
          aspect: z.string().nullable(),
          says: z.string(),
        }),
      ),
    }),
  ),
});

const published = {
  workspace: WorkspaceFile,
  table: TableShape,
  service: ServiceShape,
  form: FormSchema,
  scenario: ScenarioSchema,
  records: RecordsFile,
  'play-input': PlayInput,
  'play-result': PlayResult,
  'test-report': TestReport,
} as const;

/** The schemas as texts, by file name. */
export function schemaFiles(): Map<string, string> {
  return new Map(
    Object.entries(published).map(([name, schema]) => [
      `${name}.schema.json`,
      `${JSON.stringify({ title: `Tavro ${name}`, ...z.toJSONSchema(schema, { target: 'draft-2020-12', io: 'input' }) }, null, 2)}\n`,
    ]),
  );
}
