/**
 * A form's definition as a JSON Schema (draft 2020-12, https://json-schema.org/draft/2020-12) of what the form saves:
 * everything that a session submits is valid by it. Constraints are checked while a field is on screen; where a script
 * can hide a field that keeps its value, they are said in a `$comment` and do not refuse.
 */
import type { CellField, Field, Form } from '../form/definition';
import { kindInWords } from '../form/traits';

/** What scripts steer, as `part aspect`, such as `pilot shown`; a cell as `rows.cell`. */
export type Steered = ReadonlySet<string>;

type Schema = Record<string, unknown>;

export function toJsonSchema(form: Form, steered: Steered): Schema {
  const isFree = (part: string, aspect: string) => !steered.has(`${part} ${aspect}`);
  const properties: Record<string, Schema> = {};
  const required: string[] = [];
  for (const page of form.pages)
    for (const section of page.sections)
      for (const field of section.fields) {
        const stays = [page, section, field].every(
          (part) => part.hidden !== true && isFree(part.name, 'shown'),
        );
        const held = heldBy(field, stays, isFree(field.name, 'required'), (cell) => ({
          stays: cell.hidden !== true && isFree(`${field.name}.${cell.name}`, 'shown'),
          free: isFree(`${field.name}.${cell.name}`, 'required'),
        }));
        properties[field.name] = held.schema;
        if (held.always) required.push(field.name);
      }
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: form.title,
    type: 'object',
    properties,
    ...(required.length === 0 ? {} : { required }),
    additionalProperties: false,
  };
}

/** `stays`: it is always on screen; `free`: no script says whether it is required. */
function heldBy(
  field: Field,
  stays: boolean,
  free: boolean,
  ofCell: (cell: CellField) => { stays: boolean; free: boolean },
): { schema: Schema; always: boolean } {
  // What goes off screen and is emptied then keeps no value that nobody checked.
  const checked = stays || field.whenHidden === 'omit' || field.whenHidden === 'clear';
  const always = field.required === true && stays && free;
  const { type, limits } = shapeOf(field, always, ofCell);
  return {
    schema: {
      title: field.label,
      ...(field.help === undefined ? {} : { description: field.help }),
      ...type,
      ...(checked ? limits : commented(limits)),
      ...('default' in field && field.default !== undefined ? { default: field.default } : {}),
      ...(field.scriptOnly === true ? { readOnly: true } : {}),
    },
    always,
  };
}

function commented(limits: Schema): Schema {
  return Object.keys(limits).length === 0
    ? {}
    : { $comment: `Checked while it is on screen: ${JSON.stringify(limits)}` };
}

/** What its values are, and what is asked of them besides. */
function shapeOf(
  field: Field,
  always: boolean,
  ofCell: (cell: CellField) => { stays: boolean; free: boolean },
): { type: Schema; limits: Schema } {
  const orNull = (type: string) => (always ? type : [type, 'null']);
  switch (field.kind) {
    case 'text': {
      const { minLength, maxLength, pattern, format } = field;
      return {
        type: { type: orNull('string') },
        limits: {
          // HTML counts UTF-16 code units, JSON Schema characters, of which one has two units at most.
          ...(minLength === undefined ? {} : { minLength: Math.ceil(minLength / 2) }),
          ...(maxLength === undefined ? {} : { maxLength }),
          ...(pattern === undefined ? {} : { pattern: `^(?:${pattern})$` }),
          ...(format === 'email' ? { format: 'email' } : format === 'url' ? { format: 'uri' } : {}),
        },
      };
    }
    case 'number': {
      const { min, max, step } = field;
      return {
        type: { type: orNull('number') },
        limits: {
          ...ranged(min, max),
          // Steps count from the minimum, multiples from 0; a fraction of ten has no exact multiples.
          ...(step !== undefined && Number.isInteger(step) && (min ?? 0) % step === 0
            ? { multipleOf: step }
            : {}),
        },
      };
    }
    case 'money':
      return { type: { type: orNull('number') }, limits: ranged(field.min, field.max) };
    case 'date':
      return {
        type: { type: orNull('string'), format: 'date' },
        limits: {},
      };
    case 'time':
      return {
        type: { type: orNull('string'), pattern: '^(?:[01]\\d|2[0-3]):[0-5]\\d$' },
        limits: {},
      };
    case 'datetime':
      return { type: { type: orNull('string'), format: 'date-time' }, limits: {} };
    case 'yes_no':
      return { type: { type: orNull('boolean') }, limits: {} };
    case 'choice':
      return {
        type: { oneOf: [...titled(field.options), ...(always ? [] : [{ type: 'null' }])] },
        limits: {},
      };
    case 'choices': {
      const least = Math.max(field.minCount ?? 0, always ? 1 : 0);
      return {
        type: {
          type: 'array',
          uniqueItems: true,
          // A list of no options has no items.
          items: field.options.length === 0 ? false : { oneOf: titled(field.options) },
          ...(always ? { minItems: 1 } : {}),
        },
        limits: {
          // An empty list is no answer, which is asked for or not; then fewer are refused.
          ...(least > 1 && always ? { minItems: least } : {}),
          ...(field.maxCount === undefined ? {} : { maxItems: field.maxCount }),
        },
      };
    }
    case 'reference':
      return {
        type: {
          type: orNull('string'),
          $comment: `A key of the table ${field.table}.`,
        },
        limits: {},
      };
    case 'file':
      return {
        type: {
          type: 'array',
          items: {
            type: 'object',
            properties: {
              name: { type: 'string' },
              size: { type: 'integer', minimum: 0 },
              type: { type: 'string' },
              digest: { type: 'string', pattern: '^[0-9a-f]{64}$' },
            },
            required: ['name', 'size', 'type'],
            additionalProperties: false,
          },
          ...(always ? { minItems: 1 } : {}),
        },
        limits: { maxItems: field.maxFiles ?? 1 },
      };
    case 'rows': {
      const cells = field.fields.map((cell) => {
        const { stays, free } = ofCell(cell);
        return { name: cell.name, ...heldBy(cell, stays, free, ofCell) };
      });
      const required = cells.flatMap(({ name, always: has }) => (has ? [name] : []));
      return {
        type: {
          type: 'array',
          items: {
            type: 'object',
            properties: Object.fromEntries(cells.map(({ name, schema }) => [name, schema])),
            ...(required.length === 0 ? {} : { required }),
            additionalProperties: false,
          },
          ...(always ? { minItems: 1 } : {}),
        },
        limits: {
          ...(field.minRows === undefined || !always ? {} : { minItems: field.minRows }),
          ...(field.maxRows === undefined ? {} : { maxItems: field.maxRows }),
        },
      };
    }
  }
}

function ranged(min: number | undefined, max: number | undefined): Schema {
  return {
    ...(min === undefined ? {} : { minimum: min }),
    ...(max === undefined ? {} : { maximum: max }),
  };
}

const titled = (options: readonly { key: string; label: string }[]): Schema[] =>
  options.map(({ key, label }) => ({ const: key, title: label }));

/** What JSON Schema has no words for, in ours: for people who read what went out. */
export function unsaidIn(form: Form): string[] {
  const unsaid: string[] = [];
  const look = (field: Field, name: string) => {
    const { kind } = field;
    if (
      (kind === 'date' || kind === 'time' || kind === 'datetime') &&
      (field.min ?? field.max) !== undefined
    )
      unsaid.push(`${name}: earliest and latest`);
    if (
      kind === 'text' &&
      (field.mask ?? field.format) !== undefined &&
      field.format !== 'email' &&
      field.format !== 'url'
    )
      unsaid.push(`${name}: how it is spelled (${kindInWords(field)})`);
    if (kind === 'reference') unsaid.push(`${name}: which keys the table ${field.table} has`);
    if (kind === 'rows') for (const cell of field.fields) look(cell, `${name}.${cell.name}`);
  };
  for (const page of form.pages)
    for (const section of page.sections)
      for (const field of section.fields) look(field, field.name);
  return unsaid;
}
