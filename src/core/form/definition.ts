/**
 * What a form is: the shape of `form.json`, from which the types, the JSON Schema and the reading of files follow.
 * How a value of each kind behaves stands in `kinds/`; what names must not clash is checked in `integrity.ts`.
 */
import {
  CHOSEN_FILE_BYTES,
  NAME_CHARACTERS,
  ROWS_PER_FIELD,
  RUNS_AT_MOST,
  RUNS_PER_STEP,
} from '../limits';
import * as z from 'zod';
import { isDate, isDateTime, isTime } from './formats';
import { NAME } from './name';
import { SCALAR_KINDS } from './scalar';

export const Name = z
  .string()
  .regex(
    NAME,
    'a technical name is lower-case letters, digits and _, begins with a letter and is not "constructor"',
  )
  .max(NAME_CHARACTERS)
  .meta({ description: 'Technical name: stable, used by scripts, scenarios and records.' });

export const Key = z
  .string()
  .min(1)
  .max(200)
  .meta({ description: 'What is stored and compared; never what people read.' });

const Text = z.string().min(1).max(400);

export const OptionSchema = z.strictObject({ key: Key, label: Text });
export type Option = z.infer<typeof OptionSchema>;

/** What becomes of a value when its field goes off screen. */
export const WhenHidden = z.enum(['keep', 'omit', 'clear']);

/** What every field has, before what kind it is; files stand in this order. */
const named = { name: Name, label: Text };

/** What every field may have besides. */
const common = {
  help: z
    .string()
    .optional()
    .meta({ description: 'Stands below the field; no script touches it.' }),
  hint: z
    .string()
    .min(1)
    .optional()
    .meta({ description: 'Stands below the field until a script says another.' }),
  warning: z.string().min(1).optional().meta({
    description: 'Stands out below the field and stops nothing, until a script says another.',
  }),
  hidden: z.boolean().optional().meta({ description: 'Hidden until a script shows it.' }),
  locked: z
    .boolean()
    .optional()
    .meta({ description: 'Refuses people from the start, until a script unlocks it.' }),
  scriptOnly: z.boolean().optional().meta({
    description: 'Only scripts may ever write it: it refuses people whatever is said of locked.',
  }),
  required: z.boolean().optional(),
  whenHidden: WhenHidden.optional(),
  keepsSpace: z
    .boolean()
    .optional()
    .meta({ description: 'Leaves its place empty when hidden, instead of closing up.' }),
  width: z
    .enum(['half', 'full'])
    .optional()
    .meta({ description: 'A half field takes one column of its section, a full one all of them.' }),
};

const Length = z.number().int().min(0);

/** A pattern has to compile the way HTML compiles it (`v`) and the way the session does (`u`). */
const Pattern = z.string().refine(
  (source) => {
    try {
      new RegExp(`^(?:${source})$`, 'v');
      new RegExp(`^(?:${source})$`, 'u');
      return true;
    } catch {
      return false;
    }
  },
  { message: 'is not a regular expression that a form can use' },
);

const CalendarDate = z
  .string()
  .refine(isDate, { message: 'is not a date spelled YYYY-MM-DD' })
  .meta({ format: 'date' });

export const TextFormat = z.enum(['email', 'url', 'phone', 'iban', 'imo', 'container']);
export type TextFormat = z.infer<typeof TextFormat>;

export const TextField = z.strictObject({
  ...named,
  kind: z.literal('text'),
  ...common,
  lines: z
    .number()
    .int()
    .min(1)
    .max(40)
    .optional()
    .meta({ description: 'More than one makes it a text of many lines.' }),
  format: TextFormat.optional().meta({ description: 'A published format: see core/checks.' }),
  minLength: Length.optional(),
  maxLength: Length.optional(),
  pattern: Pattern.optional(),
  patternHelp: z
    .string()
    .optional()
    .meta({ description: 'Says in words what the pattern asks for.' }),
  mask: z.string().min(1).max(60).optional().meta({
    description:
      'How it is spelled: 9 a digit, A a capital letter, * either; everything else stands for itself.',
  }),
  default: z.string().optional(),
  defaultFrom: z.enum(['person_name', 'person_key', 'person_role']).optional(),
});

export const NumberField = z.strictObject({
  ...named,
  kind: z.literal('number'),
  ...common,
  min: z.number().optional(),
  max: z.number().optional(),
  step: z.number().positive().optional(),
  decimals: z
    .number()
    .int()
    .min(0)
    .max(10)
    .optional()
    .meta({ description: 'Decimals shown; the value is never rounded.' }),
  unit: z.string().optional(),
  default: z.number().optional(),
});

export const MoneyField = z.strictObject({
  ...named,
  kind: z.literal('money'),
  ...common,
  min: z.number().optional(),
  max: z.number().optional(),
  decimals: z
    .number()
    .int()
    .min(0)
    .max(10)
    .optional()
    .meta({ description: 'Decimals stored, 2 unless said otherwise.' }),
  currency: z.string().optional(),
  default: z.number().optional(),
});

export const DateField = z.strictObject({
  ...named,
  kind: z.literal('date'),
  ...common,
  min: CalendarDate.optional(),
  max: CalendarDate.optional(),
  default: z.string().optional(),
  defaultFrom: z.literal('today').optional(),
});

const TimeOfDay = z.string().refine(isTime, { message: 'is not a time spelled HH:MM' });
const Moment = z.string().refine(isDateTime, {
  message: 'is not a date and time as of RFC 3339, such as 2031-05-02T09:00:00Z',
});

export const TimeField = z.strictObject({
  ...named,
  kind: z.literal('time'),
  ...common,
  min: TimeOfDay.optional(),
  max: TimeOfDay.optional(),
  step: z
    .number()
    .int()
    .min(1)
    .max(720)
    .optional()
    .meta({ description: 'In minutes, from midnight or the minimum.' }),
  default: z.string().optional(),
  defaultFrom: z.literal('now').optional(),
});

export const DateTimeField = z.strictObject({
  ...named,
  kind: z.literal('datetime'),
  ...common,
  min: Moment.optional(),
  max: Moment.optional(),
  default: z.string().optional(),
  defaultFrom: z.literal('now').optional(),
});

export const YesNoField = z.strictObject({
  ...named,
  kind: z.literal('yes_no'),
  ...common,
  default: z.boolean().optional(),
});

export const ChoiceField = z.strictObject({
  ...named,
  kind: z.literal('choice'),
  ...common,
  options: z.array(OptionSchema),
  display: z.enum(['list', 'radios']).optional(),
  blank: z.boolean().optional().meta({
    description:
      'Whether an empty entry comes first: so in a list and not with radios, unless said.',
  }),
  default: z.string().optional(),
});

const Count = z.number().int().min(0).max(ROWS_PER_FIELD);

export const ChoicesField = z.strictObject({
  ...named,
  kind: z.literal('choices'),
  ...common,
  options: z.array(OptionSchema),
  minCount: Count.optional(),
  maxCount: Count.optional(),
  default: z.array(z.string()).optional(),
});

export const ReferenceField = z.strictObject({
  ...named,
  kind: z.literal('reference'),
  ...common,
  table: Name,
  display: z.enum(['list', 'search']).optional().meta({
    description: 'A list, or a line to search with: the latter beyond 40 rows, unless said.',
  }),
  default: z.string().optional(),
});

export const FileField = z.strictObject({
  ...named,
  kind: z.literal('file'),
  ...common,
  maxFiles: z.number().int().min(1).max(20).optional().meta({ description: 'One unless said.' }),
  maxBytes: z
    .number()
    .int()
    .min(1)
    .max(CHOSEN_FILE_BYTES)
    .optional()
    .meta({ description: 'Bytes of each file, 10 MiB at most.' }),
  types: z
    .array(
      z
        .string()
        .regex(
          /^[a-z0-9.+-]+\/(\*|[a-z0-9.+-]+)$/,
          'is not a media type such as application/pdf or image/*',
        ),
    )
    .optional(),
});

/** What a row may hold: every kind but rows, since rows do not nest. */
export const CellSchema = z.discriminatedUnion('kind', [
  TextField,
  NumberField,
  MoneyField,
  DateField,
  TimeField,
  DateTimeField,
  YesNoField,
  ChoiceField,
  ChoicesField,
  ReferenceField,
  FileField,
]);

export type CellField = z.infer<typeof CellSchema>;

export const RowsField = z.strictObject({
  ...named,
  kind: z.literal('rows'),
  ...common,
  fields: z.array(CellSchema).min(1).meta({ description: 'The fields that each row has.' }),
  minRows: Count.optional(),
  maxRows: Count.optional(),
  display: z
    .enum(['grid', 'stack'])
    .optional()
    .meta({ description: 'A grid, or one row under the other.' }),
  addLabel: z.string().optional().meta({ description: 'What the button that adds a row says.' }),
});

export const FieldSchema = z.discriminatedUnion('kind', [...CellSchema.options, RowsField]);
export type Field = z.infer<typeof FieldSchema>;
export type FieldKind = Field['kind'];
export type FieldOf<K extends FieldKind> = Extract<Field, { kind: K }>;

export const SectionSchema = z.strictObject({
  name: Name,
  title: Text,
  hidden: z.boolean().optional(),
  locked: z.boolean().optional(),
  keepsSpace: z.boolean().optional(),
  columns: z
    .number()
    .int()
    .min(1)
    .max(4)
    .optional()
    .meta({ description: 'Columns its fields stand in: 2 unless said.' }),
  fields: z.array(FieldSchema),
});
export type Section = z.infer<typeof SectionSchema>;

export const PageSchema = z.strictObject({
  name: Name,
  title: Text,
  hidden: z.boolean().optional(),
  locked: z.boolean().optional(),
  sections: z.array(SectionSchema).min(1),
});
export type Page = z.infer<typeof PageSchema>;

export const ButtonSchema = z.strictObject({
  name: Name,
  label: Text,
  hidden: z.boolean().optional(),
  locked: z.boolean().optional(),
  section: Name.optional().meta({
    description: 'The section at whose end it stands; without one, the foot of the form.',
  }),
});
export type Button = z.infer<typeof ButtonSchema>;

export const TrackSchema = z.strictObject({
  name: Name,
  title: Text,
  stages: z.array(OptionSchema).min(1),
  stage: Key.optional().meta({ description: 'The stage it begins at; none unless said.' }),
  hidden: z.boolean().optional(),
});
export type Track = z.infer<typeof TrackSchema>;

/** Records of another form that refer to the open one. */
export const ChildListSchema = z.strictObject({
  name: Name,
  title: Text,
  form: Name.meta({ description: 'The form whose records are listed.' }),
  field: Name.meta({ description: "The child's field that holds the id of this record." }),
  launch: Name.meta({
    description: 'The launch parameter that hands a new child the id of this record.',
  }),
  columns: z.array(Name).min(1).meta({ description: "The child's fields that the list shows." }),
  section: Name.optional().meta({
    description: 'The section at whose end it stands; without one, below the form.',
  }),
});
export type ChildList = z.infer<typeof ChildListSchema>;

export const LaunchParameterSchema = z.strictObject({
  name: Name,
  label: z.string().min(1).optional(),
  kind: z.enum(SCALAR_KINDS),
});
export type LaunchParameter = z.infer<typeof LaunchParameterSchema>;

export const FormSettings = z.strictObject({
  runLimit: z
    .number()
    .int()
    .min(1)
    .max(RUNS_AT_MOST)
    .optional()
    .meta({
      description: `How often one handler or rule may run within a step (${RUNS_PER_STEP}).`,
    }),
  checkPages: z
    .boolean()
    .optional()
    .meta({ description: 'Whether turning forward checks the page left (true).' }),
});

export const FormSchema = z.strictObject({
  $schema: z.string().optional(),
  name: Name,
  title: Text,
  settings: FormSettings.optional(),
  launch: z.array(LaunchParameterSchema).max(100).optional().meta({
    description:
      'What whoever opens the form may hand over; parameters that are not declared are texts.',
  }),
  pages: z.array(PageSchema).min(1),
  buttons: z.array(ButtonSchema).optional(),
  tracks: z.array(TrackSchema).optional(),
  children: z.array(ChildListSchema).optional(),
});
export type Form = z.infer<typeof FormSchema>;
