/**
 * What a form is: the shape of `form.json`, from which the types, the JSON Schema and the reading of files follow.
 * How a value of each kind behaves stands in `kinds/`; what names must not clash is checked in `integrity.ts`.
 */
import { z } from 'zod';

export const Name = z
  .string()
  .regex(/^[a-z][a-z0-9_]*$/, 'a technical name is lower-case letters, digits and _ and begins with a letter')
  .max(60)
  .meta({ description: 'Technical name: stable, used by scripts, scenarios and records.' });

export const Key = z.string().min(1).max(200).meta({ description: 'What is stored and compared; never what people read.' });

const Text = z.string().min(1).max(400);

export const OptionSchema = z.strictObject({ key: Key, label: Text });
export type Option = z.infer<typeof OptionSchema>;

/** What becomes of a value when its field goes off screen (semantics 11). */
export const WhenHidden = z.enum(['keep', 'omit', 'clear']);

const common = {
  name: Name,
  label: Text,
  help: z.string().optional(),
  hidden: z.boolean().optional().meta({ description: 'Hidden until a script shows it.' }),
  locked: z.boolean().optional().meta({ description: 'Refuses people from the start; scripts may write it.' }),
  required: z.boolean().optional(),
  whenHidden: WhenHidden.optional(),
  keepsSpace: z.boolean().optional().meta({ description: 'Leaves its place empty when hidden, instead of closing up.' }),
  width: z.enum(['half', 'full']).optional().meta({ description: 'Half fields stand side by side.' }),
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

const CalendarDate = z.iso.date();

export const TextField = z.strictObject({
  ...common,
  kind: z.literal('text'),
  lines: z.number().int().min(1).max(40).optional().meta({ description: 'More than one makes it a text of many lines.' }),
  format: z.enum(['email', 'url']).optional(),
  minLength: Length.optional(),
  maxLength: Length.optional(),
  pattern: Pattern.optional(),
  patternHelp: z.string().optional().meta({ description: 'Says in words what the pattern asks for.' }),
  default: z.string().optional(),
});

export const NumberField = z.strictObject({
  ...common,
  kind: z.literal('number'),
  min: z.number().optional(),
  max: z.number().optional(),
  step: z.number().positive().optional(),
  decimals: z.number().int().min(0).max(10).optional().meta({ description: 'Decimals shown; the value is never rounded.' }),
  unit: z.string().optional(),
  default: z.number().optional(),
});

export const MoneyField = z.strictObject({
  ...common,
  kind: z.literal('money'),
  min: z.number().optional(),
  max: z.number().optional(),
  decimals: z.number().int().min(0).max(10).optional().meta({ description: 'Decimals stored, 2 unless said otherwise.' }),
  currency: z.string().optional(),
  default: z.number().optional(),
});

export const DateField = z.strictObject({
  ...common,
  kind: z.literal('date'),
  min: CalendarDate.optional(),
  max: CalendarDate.optional(),
  default: z.string().optional(),
});

export const YesNoField = z.strictObject({ ...common, kind: z.literal('yes_no'), default: z.boolean().optional() });

export const ChoiceField = z.strictObject({
  ...common,
  kind: z.literal('choice'),
  options: z.array(OptionSchema),
  display: z.enum(['list', 'radios']).optional(),
  default: z.string().optional(),
});

export const ReferenceField = z.strictObject({
  ...common,
  kind: z.literal('reference'),
  table: Name,
  default: z.string().optional(),
});

export const FieldSchema = z.discriminatedUnion('kind', [
  TextField,
  NumberField,
  MoneyField,
  DateField,
  YesNoField,
  ChoiceField,
  ReferenceField,
]);
export type Field = z.infer<typeof FieldSchema>;
export type FieldKind = Field['kind'];
export type FieldOf<K extends FieldKind> = Extract<Field, { kind: K }>;

export const SectionSchema = z.strictObject({
  name: Name,
  title: Text,
  hidden: z.boolean().optional(),
  locked: z.boolean().optional(),
  keepsSpace: z.boolean().optional(),
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
  section: Name.optional().meta({ description: 'The section at whose end it stands; without one, the foot of the form.' }),
});
export type Button = z.infer<typeof ButtonSchema>;

export const FormSettings = z.strictObject({
  runLimit: z
    .number()
    .int()
    .min(1)
    .max(10_000)
    .optional()
    .meta({ description: 'How often one handler or rule may run within a step (100).' }),
  checkPages: z.boolean().optional().meta({ description: 'Whether turning forward checks the page left (true).' }),
});

export const FormSchema = z.strictObject({
  $schema: z.string().optional(),
  name: Name,
  title: Text,
  settings: FormSettings.optional(),
  pages: z.array(PageSchema).min(1),
  buttons: z.array(ButtonSchema).optional(),
});
export type Form = z.infer<typeof FormSchema>;

/** The fields of a form in the order of the definition. */
export function fieldsOf(form: Form): Field[] {
  return form.pages.flatMap((page) => page.sections.flatMap((section) => section.fields));
}

/** The sections of a form in the order of the definition. */
export function sectionsOf(form: Form): Section[] {
  return form.pages.flatMap((page) => page.sections);
}
