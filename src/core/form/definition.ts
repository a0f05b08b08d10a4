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
  .describe('Technical name: stable, used by scripts, scenarios and records.');

export const Key = z
  .string()
  .min(1)
  .max(200)
  .describe('What is stored and compared; never what people read.');

const Text = z.string().min(1).max(400);

export const OptionSchema = z.strictObject({ key: Key, label: Text });
export type Option = z.infer<typeof OptionSchema>;

/** What becomes of a value when its field goes off screen. */
export const WhenHidden = z.enum(['keep', 'omit', 'clear']);

/** What every field has, before what kind it is; files stand in this order. */
const named = { name: Name, label: Text };

/** What every field may have besides. */
const common = {
  help: z.string().optional().describe('Stands below the field; no script touches it.'),
  hint: z
    .string()
    .min(1)
    .optional()
    .describe('Stands below the field until a script says another.'),
  warning: z
    .string()
    .min(1)
    .optional()
    .describe('Stands out below the field and stops nothing, until a script says another.'),
  hidden: z.boolean().optional().describe('Hidden until a script shows it.'),
  locked: z
    .boolean()
    .optional()
    .describe('Refuses people from the start, until a script unlocks it.'),
  scriptOnly: z
    .boolean()
    .optional()
    .describe('Only scripts may ever write it: it refuses people whatever is said of locked.'),
  required: z.boolean().optional(),
  whenHidden: WhenHidden.optional(),
  keepsSpace: z
    .boolean()
    .optional()
    .describe('Leaves its place empty when hidden, instead of closing up.'),
  width: z
    .enum(['half', 'full'])
    .optional()
    .describe('A half field takes one column of its section, a full one all of them.'),
};

/** A kind of field, with what only this kind has. */
const fieldOf = <K extends string, S extends z.ZodRawShape>(kind: K, shape: S) =>
  z.strictObject({ ...named, kind: z.literal(kind), ...common, ...shape });

const Length = z.int().min(0);

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

export const TextField = fieldOf('text', {
  lines: z.int().min(1).max(40).optional().describe('More than one makes it a text of many lines.'),
  format: TextFormat.optional().describe('A published format: see core/checks.'),
  minLength: Length.optional(),
  maxLength: Length.optional(),
  pattern: Pattern.optional(),
  patternHelp: z.string().optional().describe('Says in words what the pattern asks for.'),
  mask: z
    .string()
    .min(1)
    .max(60)
    .optional()
    .describe(
      'How it is spelled: 9 a digit, A a capital letter, * either; everything else stands for itself.',
    ),
  default: z.string().optional(),
  defaultFrom: z.enum(['person_name', 'person_key', 'person_role']).optional(),
});

export const NumberField = fieldOf('number', {
  min: z.number().optional(),
  max: z.number().optional(),
  step: z.number().positive().optional(),
  decimals: z
    .int()
    .min(0)
    .max(10)
    .optional()
    .describe('Decimals shown; the value is never rounded.'),
  unit: z.string().optional(),
  default: z.number().optional(),
});

export const MoneyField = fieldOf('money', {
  min: z.number().optional(),
  max: z.number().optional(),
  decimals: z.int().min(0).max(10).optional().describe('Decimals stored, 2 unless said otherwise.'),
  currency: z.string().optional(),
  default: z.number().optional(),
});

export const DateField = fieldOf('date', {
  min: CalendarDate.optional(),
  max: CalendarDate.optional(),
  default: z.string().optional(),
  defaultFrom: z.literal('today').optional(),
});

const TimeOfDay = z.string().refine(isTime, { message: 'is not a time spelled HH:MM' });
const Moment = z.string().refine(isDateTime, {
  message: 'is not a date and time as of RFC 3339, such as 2031-05-02T09:00:00Z',
});

export const TimeField = fieldOf('time', {
  min: TimeOfDay.optional(),
  max: TimeOfDay.optional(),
  step: z.int().min(1).max(720).optional().describe('In minutes, from midnight or the minimum.'),
  default: z.string().optional(),
  defaultFrom: z.literal('now').optional(),
});

export const DateTimeField = fieldOf('datetime', {
  min: Moment.optional(),
  max: Moment.optional(),
  default: z.string().optional(),
  defaultFrom: z.literal('now').optional(),
});

export const YesNoField = fieldOf('yes_no', {
  default: z.boolean().optional(),
});

export const ChoiceField = fieldOf('choice', {
  options: z.array(OptionSchema),
  display: z.enum(['list', 'radios']).optional(),
  blank: z
    .boolean()
    .optional()
    .describe('Whether an empty entry comes first: so in a list and not with radios, unless said.'),
  default: z.string().optional(),
});

const Count = z.int().min(0).max(ROWS_PER_FIELD);

export const ChoicesField = fieldOf('choices', {
  options: z.array(OptionSchema),
  minCount: Count.optional(),
  maxCount: Count.optional(),
  default: z.array(z.string()).optional(),
});

export const ReferenceField = fieldOf('reference', {
  table: Name,
  display: z
    .enum(['list', 'search'])
    .optional()
    .describe('A list, or a line to search with: the latter beyond 40 rows, unless said.'),
  default: z.string().optional(),
});

export const FileField = fieldOf('file', {
  maxFiles: z.int().min(1).max(20).optional().describe('One unless said.'),
  maxBytes: z
    .int()
    .min(1)
    .max(CHOSEN_FILE_BYTES)
    .optional()
    .describe('Bytes of each file, 10 MiB at most.'),
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

export const RowsField = fieldOf('rows', {
  fields: z.array(CellSchema).min(1).describe('The fields that each row has.'),
  minRows: Count.optional(),
  maxRows: Count.optional(),
  display: z.enum(['grid', 'stack']).optional().describe('A grid, or one row under the other.'),
  addLabel: z.string().optional().describe('What the button that adds a row says.'),
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
  columns: z.int().min(1).max(4).optional().describe('Columns its fields stand in: 2 unless said.'),
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
  section: Name.optional().describe(
    'The section at whose end it stands; without one, the foot of the form.',
  ),
});
export type Button = z.infer<typeof ButtonSchema>;

export const TrackSchema = z.strictObject({
  name: Name,
  title: Text,
  stages: z.array(OptionSchema).min(1),
  stage: Key.optional().describe('The stage it begins at; none unless said.'),
  hidden: z.boolean().optional(),
});
export type Track = z.infer<typeof TrackSchema>;

/** Records of another form that refer to the open one. */
export const ChildListSchema = z.strictObject({
  name: Name,
  title: Text,
  form: Name.describe('The form whose records are listed.'),
  field: Name.describe("The child's field that holds the id of this record."),
  launch: Name.describe('The launch parameter that hands a new child the id of this record.'),
  columns: z.array(Name).min(1).describe("The child's fields that the list shows."),
  section: Name.optional().describe(
    'The section at whose end it stands; without one, below the form.',
  ),
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
    .int()
    .min(1)
    .max(RUNS_AT_MOST)
    .optional()
    .describe(`How often one handler or rule may run within a step (${RUNS_PER_STEP}).`),
  checkPages: z
    .boolean()
    .optional()
    .describe('Whether turning forward checks the page left (true).'),
});

export const FormSchema = z.strictObject({
  $schema: z.string().optional(),
  name: Name,
  title: Text,
  settings: FormSettings.optional(),
  launch: z
    .array(LaunchParameterSchema)
    .max(100)
    .optional()
    .describe(
      'What whoever opens the form may hand over; parameters that are not declared are texts.',
    ),
  pages: z.array(PageSchema).min(1),
  buttons: z.array(ButtonSchema).optional(),
  tracks: z.array(TrackSchema).optional(),
  children: z.array(ChildListSchema).optional(),
});
export type Form = z.infer<typeof FormSchema>;
