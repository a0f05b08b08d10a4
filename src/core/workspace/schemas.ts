/** The published JSON Schemas (2020-12) of every file of a workspace and of what the command line reads and prints. */
import * as z from 'zod';
import { FormSchema, Name } from '../form/definition';
import { ServiceShape } from '../form/service';
import { TableShape } from '../form/table';
import { OpenSchema, ScenarioSchema } from '../scenario/definition';
import { RecordingSchema } from '../scenario/recording';
import {
  LineSchema,
  OpeningSchema,
  StepSchema,
  ValueSchema,
  ValuesSchema,
} from '../session/schema';
import { RecordsFile, WorkspaceFile } from './workspace';

/**
 * What `tavro play` and `tavro why` read: an opening and steps, the steps alone, done by the first person of the
 * workspace, or a recording.
 */
export const PlayInput = z.union([
  z.array(StepSchema),
  z.strictObject({ $schema: z.string().optional(), open: OpenSchema, steps: z.array(StepSchema) }),
  RecordingSchema,
  z
    .strictObject({ form: Name, opening: OpeningSchema, steps: z.array(StepSchema) })
    .describe('The way to a finding or a difference, as tavro find and tavro compare print it.'),
]);

const Failure = z.object({
  code: z.string(),
  says: z.string(),
  behaviour: z.string(),
  line: z.int().nullable(),
  cycle: z.array(z.string()).optional(),
});

/** What `tavro play` prints. */
export const PlayResult = z.object({
  parts: z
    .record(
      z.string(),
      z.looseObject({ sort: z.string(), shown: z.boolean(), onScreen: z.boolean() }),
    )
    .describe('Rows and their cells stand here too, by their place: cargo[0], cargo[0].weight.'),
  '@record': z.string().nullable(),
  '@waiting': z.array(
    z.looseObject({
      behaviour: z.string(),
      line: z.int(),
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
  '@log': z.array(z.object({ behaviour: z.string(), line: z.int(), values: z.array(z.json()) })),
  '@errors': z.array(Failure),
  '@refused': z.array(z.object({ step: z.int(), why: z.string() })),
  tape: z
    .array(z.looseObject({ n: z.int(), cause: z.int().nullable(), type: z.string() }))
    .optional(),
});

/** What `tavro play --at` prints. */
export const MomentResult = z.object({
  at: z.object({
    step: z.int().describe('0 is the opening.'),
    behaviour: z.string(),
    run: z.string(),
    script: z.string(),
    line: z.int(),
    statement: z.string(),
  }),
  variables: z
    .record(z.string(), ValueSchema)
    .describe('The variables in sight of the line, by name, right before it runs.'),
  parts: PlayResult.shape.parts,
  '@page': z.string().nullable(),
  '@outgoing': z.object({ values: ValuesSchema, without: z.array(z.string()) }),
});

const Comparison = z.object({
  text: z.string(),
  op: z.string(),
  left: z.object({ text: z.string(), value: ValueSchema }),
  right: z.object({ text: z.string(), value: ValueSchema }),
  came: z.boolean(),
});

const NearMiss = z.looseObject({ is: z.string() });

const ConditionMet = z.object({
  script: z.string(),
  site: z.int(),
  line: z.int(),
  text: z.string(),
  is: z.enum(['condition', 'switch', 'statement']),
  came: ValueSchema,
  comparisons: z.array(Comparison),
});

const Entry = z.int().describe('The number of an entry of the tape.');

const Cause = z.union([
  z.object({
    is: z.literal('read'),
    part: z.string(),
    aspect: z.string(),
    value: ValueSchema,
    entry: Entry.nullable(),
  }),
  z.object({
    is: z.literal('row'),
    part: z.string(),
    did: z.enum(['brought', 'added', 'moved', 'removed']),
    entry: Entry.nullable(),
  }),
  z.object({
    is: z.literal('event'),
    event: z.string(),
    part: z.string().nullable(),
    value: ValueSchema,
    entry: Entry,
  }),
  z.object({
    is: z.literal('answer'),
    name: z.string(),
    value: ValueSchema,
    fails: z.string().nullable(),
    entry: Entry,
  }),
  z.object({ is: z.literal('opening'), what: z.string(), value: ValueSchema }),
  z.object({ is: z.enum(['clock', 'random']) }),
  z.object({ is: z.literal('variable'), script: z.string(), name: z.string() }),
]);

const RunMet = z.object({
  entry: Entry,
  sort: z.string(),
  behaviour: z.string(),
  title: z.string(),
});

/** A decision with those behind it (`debugging/chain.ts`). */
const Decision = z.object({
  part: z.string(),
  aspect: z.string(),
  value: ValueSchema,
  decided: z.enum([
    'said',
    'withdrawn',
    'entered',
    'corrected',
    'row',
    'record',
    'definition',
    'derived',
    'judged',
    'checked',
    'stopped',
    'saved',
    'refused',
    'never',
  ]),
  entry: Entry.nullable(),
  step: z.int().nullable().describe('The step in which it was decided, 0 being the opening.'),
  run: RunMet.nullable(),
  line: LineSchema.nullable(),
  statement: z.string().nullable(),
  comparisons: z.array(Comparison).describe('In the statement, as they came out.'),
  conditions: z.array(ConditionMet),
  near: z
    .array(NearMiss)
    .describe('What is often wrong with comparisons that came out as these did.'),
  causes: z.array(Cause),
  asOf: Entry.nullable().describe(
    'What it depends on stood so right before this entry; at the end for null.',
  ),
  takenBack: z
    .object({
      why: z.enum(['failed', 'superseded', 'circle']),
      run: RunMet,
      said: z.object({ value: ValueSchema, line: LineSchema.nullable() }).nullable(),
      says: z.string().nullable(),
      failedAt: LineSchema.nullable(),
    })
    .nullable()
    .describe('What a script said of it, or would have, and no longer counts.'),
  refused: z
    .object({ entry: Entry, why: z.string() })
    .nullable()
    .describe('The last step that would have changed it and was refused.'),
});
type Why = z.infer<typeof Decision> & { because: (Why | null)[] };
const Why: z.ZodType<Why> = Decision.extend({
  because: z
    .array(z.lazy(() => Why.nullable()))
    .describe(
      'For each cause in turn, why it was so; null for what has no cause of its own, or was told before.',
    ),
}).meta({ id: 'why' });

const Outcome = z.union([
  z.object({ is: z.enum(['never ran', 'not reached']) }),
  z.object({ is: z.literal('waits'), restarted: Entry.nullable() }),
  z.object({
    is: z.literal('kept'),
    by: z.array(
      ConditionMet.extend({
        needs: z.boolean().nullable(),
        from: z.array(ConditionMet),
        near: z.array(NearMiss),
        causes: z.array(Cause),
        now: z
          .array(z.object({ part: z.string(), aspect: z.string(), value: ValueSchema }))
          .describe('What it read and is otherwise by now.'),
      }),
    ),
  }),
  z.object({ is: z.literal('said'), value: ValueSchema }),
  z.object({
    is: z.literal('overruled'),
    value: ValueSchema,
    by: z.object({ entry: Entry, behaviour: z.string(), title: z.string() }).nullable(),
  }),
  z.object({ is: z.literal('overwritten'), value: ValueSchema, line: LineSchema }),
  z.object({
    is: z.literal('failed'),
    failure: Failure,
    said: z.object({ value: ValueSchema }).nullable(),
  }),
]);

/** What `tavro why` prints. */
export const WhyResult = z.object({
  question: z.object({ part: z.string(), aspect: z.string(), step: z.int() }),
  why: Why,
  whyNot: z.array(
    z.object({
      writer: z.looseObject({ script: z.string(), line: z.int() }),
      run: Entry.nullable(),
      outcome: Outcome,
    }),
  ),
  notOffered: z
    .array(
      z.object({
        key: z.string(),
        label: z.string(),
        by: z
          .object({
            script: z.string(),
            line: z.int(),
            text: z.string(),
            comparisons: z.array(Comparison),
          })
          .nullable(),
      }),
    )
    .describe('Of options: those not offered, with the line that left each out.'),
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
      steps: z.int(),
      misses: z.array(
        z.object({
          entry: z
            .int()
            .describe('The entry of steps, from 0; their number for what shows after the last.'),
          after: z.int().describe('Steps done by then, as the tape counts them: 0 is the opening.'),
          at: z
            .int()
            .nullable()
            .describe('The row of the table, or the combination of the grid, from 0.'),
          part: z.string(),
          aspect: z.string().nullable(),
          says: z.string(),
          expected: ValueSchema.optional(),
          actual: ValueSchema.optional(),
          why: z.string().optional().describe('Who said so last, in a sentence.'),
        }),
      ),
      cases: z.array(z.object({ title: z.string(), passed: z.boolean() })).optional(),
    }),
  ),
});

const FilePlace = z
  .object({ file: z.string(), line: z.int(), column: z.int() })
  .nullable()
  .describe('Null where no line says anything of it.');

/** What `tavro compare --reporter json` prints. */
export const CompareReport = z.object({
  added: z.array(z.string()).describe('Titles of forms that only the later workspace has.'),
  removed: z.array(z.string()),
  forms: z.array(
    z.object({
      form: Name,
      sessions: z.int(),
      lines: z
        .array(
          z.object({
            script: z.string(),
            line: z.int(),
            in: z.enum(['before', 'after']),
            isReached: z.boolean(),
          }),
        )
        .describe('Changed lines that run, with whether a session came to them.'),
      differences: z.array(
        z.object({
          part: z.string().describe('By its later name; @form for the form itself.'),
          aspect: z.string(),
          before: z.json().optional(),
          after: z.json().optional(),
          says: z.string().describe('In two sentences, in the labels of the form.'),
          places: z.object({ before: FilePlace, after: FilePlace }),
          way: z
            .object({ form: Name, opening: OpeningSchema, steps: z.array(StepSchema) })
            .describe('As tavro play --steps takes it.'),
          also: z
            .array(z.object({ part: z.string(), aspect: z.string() }))
            .describe('What else has the same cause.'),
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
  'moment-result': MomentResult,
  'why-result': WhyResult,
  recording: RecordingSchema,
  'test-report': TestReport,
  'compare-report': CompareReport,
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
