/** What a scenario is: the shape of `scenarios/NAME.json`. */
import {
  AXES_PER_GRID,
  CASES_PER_SCENARIO,
  COMBINATIONS_PER_GRID,
  STEPS_PER_SESSION,
} from '../limits';
import * as z from 'zod';
import { Name } from '../form/definition';
import {
  LineSchema,
  SEEDS,
  ServiceMoods,
  StepSchema,
  ValueSchema,
  ValuesSchema,
  Zone,
} from '../session/schema';
import { ASPECTS, isToldName, SAID, type ToldName } from '../wire/aspects';
import type { PartState } from '../session/step';

export const OpenSchema = z.strictObject({
  as: z.string().describe('The key of a person of the workspace.'),
  record: z
    .string()
    .nullable()
    .optional()
    .describe('The id of a sample record; null for a new entry.'),
  launch: ValuesSchema.optional(),
  clock: z.iso
    .datetime()
    .optional()
    .describe('When the form is opened, 2031-05-02T09:00:00Z unless said.'),
  zone: Zone.optional(),
  seed: z.int().min(-SEEDS).max(SEEDS).optional(),
  viewing: z.boolean().optional().describe('The record is only looked at.'),
  parent: z
    .strictObject({ form: Name, record: z.string() })
    .optional()
    .describe('The form and sample record that this one is opened from.'),
  services: ServiceMoods.optional().describe(
    'How services behave in this session instead of as defined.',
  ),
});
export type Open = z.infer<typeof OpenSchema>;

/** How scenarios spell what an aspect takes. */
const SPELLED = {
  value: ValueSchema,
  'yes or no': z.boolean(),
  'text or nothing': z.string().nullable(),
  text: z.string(),
  options: z.array(z.string()).describe('Keys, in order.'),
  stage: z.string().nullable().describe('Of a track: the key of its stage.'),
};

type Spelled = {
  [A in ToldName]: z.ZodOptional<(typeof SPELLED)[(typeof ASPECTS)[A]['takes']]>;
};

const spelled = {
  ...(Object.fromEntries(
    SAID.filter(isToldName).map((name) => [name, SPELLED[ASPECTS[name].takes].optional()]),
  ) as Spelled),
  onScreen: z.boolean().optional(),
  editable: z.boolean().optional(),
  fault: z.string().nullable().optional().describe('What the last check found.'),
  orphan: z.boolean().optional(),
  stray: ValueSchema.optional().describe('What the record brought and is no value of this kind.'),
} satisfies Record<Exclude<keyof PartState, 'sort'>, z.ZodType>;

/** The order in which files of scenarios have them; a new one comes last. */
const IN_FILES = [
  'value',
  'shown',
  'onScreen',
  'locked',
  'editable',
  'required',
  'label',
  'options',
  'hint',
  'warning',
  'problem',
  'fault',
  'orphan',
  'stage',
  'stray',
] as const satisfies readonly (keyof typeof spelled)[];

const aspects = {
  ...(Object.fromEntries(IN_FILES.map((name) => [name, spelled[name]])) as typeof spelled),
  ...spelled,
};

/** Every aspect can be expected. */
export const PartExpectation = z.strictObject({
  ...aspects,
  count: z.int().optional().describe('Of a rows field: how many rows there are.'),
  cells: z
    .record(Name, ValueSchema)
    .optional()
    .describe('Of a row: only the cells named are looked at.'),
});
export type PartExpectation = z.infer<typeof PartExpectation>;

const Said = z.union([
  z.string(),
  z.strictObject({ text: z.string(), tone: z.enum(['info', 'warning', 'error']) }),
]);

const special = {
  '@submit': z
    .strictObject({
      saved: z.boolean().optional(),
      stoppedBy: z.string().nullable().optional(),
      values: ValuesSchema.optional().describe('Only the fields named are looked at.'),
      without: z.array(z.string()).optional(),
    })
    .optional(),
  '@page': z.string().nullable().optional(),
  '@replaced': z.string().nullable().optional(),
  '@notice': Said.nullable().optional().describe('The message that a rule holds.'),
  '@messages': z.array(Said).optional(),
  '@log': z.array(z.array(ValueSchema)).optional(),
  '@parent': z
    .array(z.strictObject({ set: Name, to: ValueSchema }))
    .optional()
    .describe('Values handed to the form that this one was opened from.'),
  '@errors': z
    .array(
      z.strictObject({
        behaviour: z.string().optional(),
        line: LineSchema.optional(),
        says: z.string().optional(),
      }),
    )
    .optional(),
  '@waiting': z
    .array(z.string())
    .optional()
    .describe('The functions of services that are waited for, the oldest call first.'),
  '@nothingElse': z
    .literal(true)
    .optional()
    .describe(
      'Besides what is named here and what the steps entered, nothing has changed since the last expect that says so, or since the opening.',
    ),
  '@refused': z
    .array(z.strictObject({ step: z.int().optional(), why: z.string().optional() }))
    .optional()
    .describe('Steps a person could not do: the step counted from 0 among all entries of steps.'),
};

export const ExpectationSchema = z.object(special).catchall(PartExpectation);
export type Expectation = z.infer<typeof ExpectationSchema>;

export const ScenarioStepSchema = z.union([
  StepSchema,
  z.strictObject({ expect: ExpectationSchema }),
]);
export type ScenarioStep = z.infer<typeof ScenarioStepSchema>;

/** Something that cases and grids vary: a field that is set, or how the form is opened. */
export const InputName = z
  .string()
  .regex(/^(?:@(?:as|record|launch\.\w+|fails\.\w+(?:\.\w+)?)|[a-z][\w.[\]]*)$/, {
    message:
      'is no input: a field, @as, @record, @launch.PARAMETER or @fails.SERVICE (yes where its calls fail)',
  })
  .describe('A field, or @as, @record, @launch.PARAMETER, @fails.SERVICE.');

export const CasesSchema = z
  .strictObject({
    inputs: z.array(InputName).min(1),
    steps: z.array(StepSchema).optional().describe('Done after the inputs are set.'),
    expected: z
      .array(z.string().min(1))
      .describe('A part for its value, or a part and an aspect: note.required.'),
    rows: z
      .array(
        z.strictObject({
          title: z.string().min(1).optional(),
          inputs: z.array(ValueSchema),
          expected: z.array(ValueSchema),
        }),
      )
      .max(CASES_PER_SCENARIO, `a scenario has at most ${CASES_PER_SCENARIO} cases`),
  })
  .refine(
    ({ inputs, expected, rows }) =>
      rows.every(
        (row) => row.inputs.length === inputs.length && row.expected.length === expected.length,
      ),
    'every row has a value for each input and each expectation',
  )
  .describe(
    'The same scenario for a table of values: after the steps the inputs are set in order, those without a value left alone, then the expectations hold.',
  );
export type Cases = z.infer<typeof CasesSchema>;

export const AxisSchema = z.strictObject({
  input: InputName,
  values: z.array(ValueSchema).min(1).max(COMBINATIONS_PER_GRID),
});
export type Axis = z.infer<typeof AxisSchema>;

/** What people meet of a part: what a grid keeps. */
export const OutcomeSchema = z.record(z.string(), z.record(z.string(), ValueSchema));

export const GridSchema = z
  .strictObject({
    axes: z
      .array(AxisSchema)
      .min(1)
      .max(AXES_PER_GRID, `a grid varies at most ${AXES_PER_GRID} inputs`),
    strength: z
      .union([z.literal(2), z.literal(3)])
      .optional()
      .describe(
        'Not all combinations: so many that any two (or three) values of different axes meet.',
      ),
    parts: z
      .array(z.string())
      .optional()
      .describe('The parts that are looked at; all unless said.'),
    accepted: z.strictObject({
      base: OutcomeSchema.describe('What is the same in all combinations.'),
      outcomes: z.array(OutcomeSchema).describe('What differs, each only once.'),
      rows: z
        .array(z.tuple([z.array(z.int().nonnegative()), z.int().nonnegative()]))
        .max(COMBINATIONS_PER_GRID)
        .describe('Combinations, by the place of each value, with their outcome.'),
    }),
  })
  .describe('What comes of each combination of values, as it was accepted.');
export type GridTest = z.infer<typeof GridSchema>;

export const ScenarioSchema = z
  .strictObject({
    $schema: z.string().optional(),
    title: z.string().min(1),
    startsAs: z
      .string()
      .optional()
      .describe(
        'The name of a scenario of the form: it is opened as that one is, and its steps are done first.',
      ),
    open: OpenSchema.optional(),
    steps: z
      .array(ScenarioStepSchema)
      .max(STEPS_PER_SESSION, `a scenario has at most ${STEPS_PER_SESSION} steps`),
    cases: CasesSchema.optional(),
    grid: GridSchema.optional(),
  })
  .refine(({ open, startsAs }) => (open === undefined) !== (startsAs === undefined), {
    message: 'a scenario has either open or startsAs',
  });
export type Scenario = z.infer<typeof ScenarioSchema>;
