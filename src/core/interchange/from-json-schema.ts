/**
 * A JSON Schema of an object (draft 2020-12; earlier drafts where they say the same) as a form's structure, with the
 * conditions it can say as a behaviour. What a form cannot have is left out and listed.
 */
import type { CellField, Field, Section } from '../form/definition';
import { isObject } from '../form/value';
import { Conditions, type Known } from './conditions';
import {
  fieldFrom,
  formOf,
  labelFrom,
  Names,
  NothingToTake,
  shortened,
  type Drafted,
  type TakenForm,
} from './taken';

type Schema = Record<string, unknown>;

/** How deep objects and references are followed. */
const LEVELS = 8;
/** Fields of one form; more is no form for people. */
const FIELDS = 2000;

/** Keywords that are taken, or say nothing that a form would do otherwise. */
const KNOWN: ReadonlySet<string> = new Set(
  (
    '$schema $id $defs definitions $comment $ref $anchor $vocabulary title description ' +
    'default examples type enum const oneOf anyOf format minLength maxLength pattern ' +
    'minimum maximum exclusiveMinimum exclusiveMaximum multipleOf items minItems maxItems ' +
    'uniqueItems properties required readOnly additionalProperties unevaluatedProperties ' +
    'dependentRequired dependencies if then else allOf deprecated writeOnly'
  ).split(' '),
);

/** Throws NothingToTake, in words, for a text that is no JSON Schema of an object. */
export function fromJsonSchema(text: string, called: string): TakenForm {
  let root: unknown;
  try {
    root = JSON.parse(text);
  } catch {
    throw new NothingToTake('It is not JSON.');
  }
  if (!isObject(root)) throw new NothingToTake('It is no JSON Schema: an object is expected.');
  return new Reading(root as Schema).take(called);
}

class Reading {
  readonly #names = new Names();
  readonly #notes: string[] = [];
  readonly #conditions = new Conditions();
  /** Fields by the path of their property, such as `owner.name`. */
  readonly #fields = new Map<string, Known>();
  #count = 0;

  constructor(private readonly root: Schema) {}

  take(called: string): TakenForm {
    const root = this.#resolved(this.root, '', 0);
    const title = typeof root.title === 'string' && root.title !== '' ? root.title : called;
    if (!isObject(root.properties))
      throw new NothingToTake(
        'It describes no object with properties, so there is nothing to fill in.',
      );
    const sections = this.#sections(root, '', shortened(title) || 'Form', 0);
    this.#conditionsOf(root, '', 0);
    return {
      form: formOf(title, sections),
      behaviours: this.#conditions.behaviours(),
      notes: this.#notes,
    };
  }

  #note(path: string, says: string): void {
    const note = path === '' ? says : `${path}: ${says}`;
    if (!this.#notes.includes(note) && this.#notes.length < 200) this.#notes.push(note);
  }

  /** The schema that a local reference stands for, with what stands beside it. */
  #resolved(schema: unknown, path: string, level: number): Schema {
    if (schema === true) return {};
    if (!isObject(schema)) {
      this.#note(path, 'is no schema');
      return {};
    }
    const { $ref: ref, ...beside } = schema as Schema;
    if (ref === undefined) return schema as Schema;
    if (typeof ref !== 'string' || !ref.startsWith('#') || level > LEVELS) {
      this.#note(path, `refers to ${String(ref).slice(0, 100)}, which is not followed`);
      return beside;
    }
    let at: unknown = this.root;
    for (const step of ref.slice(1).split('/').filter(Boolean)) {
      const key = decodeURIComponent(step).replace(/~1/g, '/').replace(/~0/g, '~');
      at = isObject(at) && Object.hasOwn(at, key) ? (at as Schema)[key] : undefined;
    }
    if (at === undefined) {
      this.#note(path, `refers to ${ref}, which is not there`);
      return beside;
    }
    return { ...this.#resolved(at, path, level + 1), ...beside };
  }

  /** The section of an object, and behind it those of the objects in it. */
  #sections(schema: Schema, path: string, title: string, level: number): Section[] {
    const fields: Field[] = [];
    const within: Section[] = [];
    const name = this.#names.next(path === '' ? 'fields' : `${path}_part`, 'section');
    const required = new Set(Array.isArray(schema.required) ? schema.required : []);
    for (const [key, given] of Object.entries(schema.properties as Schema)) {
      const at = path === '' ? key : `${path}.${key}`;
      if (++this.#count > FIELDS) {
        this.#note(at, `is left out: a form of more than ${FIELDS} fields is none for people`);
        break;
      }
      const property = this.#resolved(given, at, 0);
      if (isObject(property.properties) && typesOf(property).every((type) => type === 'object')) {
        if (level >= LEVELS) this.#note(at, 'is nested too deep');
        else within.push(...this.#sections(property, at, labelOf(property, key), level + 1));
        this.#conditionsOf(property, at, level + 1);
        continue;
      }
      const drafted = this.#field(property, at, key, required.has(key));
      if (drafted === null) continue;
      const field = fieldFrom<Field>({
        name: this.#names.next(at.replaceAll('.', '_'), 'field'),
        ...drafted,
      });
      fields.push(field);
      this.#fields.set(at, {
        name: field.name,
        kind: field.kind,
        required: field.required === true,
        label: field.label,
      });
    }
    for (const asked of required)
      if (typeof asked === 'string' && !Object.hasOwn(schema.properties as Schema, asked))
        this.#note(path, `"${asked}" is required and not described`);
    return [{ name, title: title.slice(0, 400), fields }, ...within];
  }

  #field(schema: Schema, path: string, key: string, required: boolean): Drafted | null {
    for (const keyword of Object.keys(schema))
      if (!KNOWN.has(keyword) && !keyword.startsWith('x-'))
        this.#note(path, `"${keyword}" is not taken`);
    const { readOnly, description } = schema;
    const common = {
      label: labelOf(schema, key),
      ...(typeof description === 'string' && description !== '' ? { help: description } : {}),
      ...(readOnly === true ? { locked: true } : {}),
      ...(required ? { required: true } : {}),
    };
    const options = optionsOf(schema);
    if (options !== null) return this.#choice(schema, path, common, options);
    const types = typesOf(schema);
    if (types.length > 1) {
      this.#note(path, `may be ${types.join(' or ')}, of which a form takes one: ${types[0]}`);
    }
    switch (types[0]) {
      case 'string':
        return this.#text(schema, path, common);
      case 'integer':
      case 'number':
        return this.#number(schema, path, common, types[0]);
      case 'boolean':
        return fieldFrom({ ...common, kind: 'yes_no', default: defaultOf(schema, 'boolean') });
      case 'array':
        return this.#list(schema, path, common);
      case 'object':
        this.#note(path, 'is an object without properties, and is left out');
        return null;
      case 'null':
        this.#note(path, 'may only be null, and is left out');
        return null;
      default:
        this.#note(path, 'says no type that a form has; it is taken as a text');
        return this.#text(schema, path, common);
    }
  }

  #choice(
    schema: Schema,
    path: string,
    common: object,
    options: { key: string; label: string }[],
  ): Drafted {
    const keys = new Set(options.map(({ key }) => key));
    const { default: given } = schema;
    return fieldFrom({
      ...common,
      kind: 'choice',
      options,
      default: typeof given === 'string' && keys.has(given) ? given : undefined,
      ...this.#leftOver(schema, path, ['minLength', 'maxLength', 'pattern', 'minimum', 'maximum']),
    });
  }

  #text(schema: Schema, path: string, common: object): Drafted {
    const { format, pattern, minLength, maxLength, default: given } = schema;
    const preset = typeof given === 'string' ? given : undefined;
    if (format === 'date' || format === 'date-time' || format === 'time') {
      this.#leftOver(schema, path, ['minLength', 'maxLength', 'pattern']);
      if (format === 'time') this.#note(path, 'a time of day is taken without seconds and zone');
      const kind = ({ date: 'date', 'date-time': 'datetime', time: 'time' } as const)[format];
      return fieldFrom({
        ...common,
        kind,
        ...(preset !== undefined && kind !== 'time' ? { default: preset } : {}),
      });
    }
    const known = { email: 'email', 'idn-email': 'email', uri: 'url', url: 'url' } as const;
    if (typeof format === 'string' && !Object.hasOwn(known, format))
      this.#note(path, `the format "${format}" is not checked`);
    return fieldFrom({
      ...common,
      kind: 'text',
      ...(typeof format === 'string' && Object.hasOwn(known, format)
        ? { format: known[format as keyof typeof known] }
        : {}),
      minLength: this.#length(minLength, path, 'minLength'),
      maxLength: this.#length(maxLength, path, 'maxLength'),
      pattern: this.#pattern(pattern, path),
      ...(typeof maxLength === 'number' && maxLength > 200 ? { lines: 3 } : {}),
      default: preset,
    });
  }

  #length(length: unknown, path: string, keyword: string): number | undefined {
    if (length === undefined) return undefined;
    if (typeof length === 'number' && Number.isInteger(length) && length >= 0) return length;
    this.#note(path, `${keyword} is ${JSON.stringify(length)}, which is no length`);
    return undefined;
  }

  /** A pattern of JSON Schema is looked for anywhere in the text, one of a form has to fit the whole of it. */
  #pattern(pattern: unknown, path: string): string | undefined {
    if (typeof pattern !== 'string') return undefined;
    const whole = /^\^(?:\(\?:([\s\S]*)\)|([^|]*))\$$/.exec(pattern);
    const inner = whole?.[1] ?? whole?.[2];
    // A dollar behind a backslash, or brackets that close in between, make the ends belong to something else.
    const anchored = inner !== undefined && !inner.endsWith('\\') && isBalanced(inner);
    const source = anchored ? inner : `[\\s\\S]*(?:${pattern})[\\s\\S]*`;
    try {
      new RegExp(`^(?:${source})$`, 'u');
      new RegExp(`^(?:${source})$`, 'v');
      return source;
    } catch {
      this.#note(path, `the pattern ${pattern.slice(0, 80)} is none that a form can use`);
      return undefined;
    }
  }

  #number(schema: Schema, path: string, common: object, type: 'integer' | 'number'): Drafted {
    const { minimum, maximum, exclusiveMinimum, exclusiveMaximum, multipleOf } = schema;
    const whole = type === 'integer';
    const number = (value: unknown) => (typeof value === 'number' ? value : undefined);
    const bound = (inclusive: unknown, exclusive: unknown, by: 1 | -1): number | undefined => {
      // Earlier drafts say with a yes or no whether the bound belongs to it.
      const open = exclusive === true ? number(inclusive) : number(exclusive);
      const closed = exclusive === true ? undefined : number(inclusive);
      if (open === undefined) return closed;
      if (whole) {
        const next = by > 0 ? Math.floor(open) + 1 : Math.ceil(open) - 1;
        return closed === undefined
          ? next
          : by > 0
            ? Math.max(closed, next)
            : Math.min(closed, next);
      }
      this.#note(path, `${open} itself is allowed: a form has no bound that is left out`);
      return closed === undefined ? open : by > 0 ? Math.max(closed, open) : Math.min(closed, open);
    };
    const min = bound(minimum, exclusiveMinimum, 1);
    const max = bound(maximum, exclusiveMaximum, -1);
    const multiple = number(multipleOf);
    const step =
      multiple === undefined || (whole && !Number.isInteger(multiple))
        ? whole
          ? 1
          : multiple
        : multiple;
    const offBase = step !== undefined && min !== undefined && !isMultiple(min, step);
    // Multiples count from 0, steps from the minimum: that moves up to the first multiple.
    const least = offBase ? Math.ceil(min / step) * step : min;
    if (whole && multiple !== undefined && !Number.isInteger(multiple))
      this.#note(
        path,
        `is a whole number in multiples of ${multiple}, of which only the multiples are taken`,
      );
    return fieldFrom({
      ...common,
      kind: 'number',
      min: least,
      max,
      step: step !== undefined && step > 0 ? step : undefined,
      ...(whole ? { decimals: 0 } : {}),
      default: defaultOf(schema, 'number'),
    });
  }

  #list(schema: Schema, path: string, common: object): Drafted | null {
    const items = this.#resolved(
      Array.isArray(schema.items) ? true : (schema.items ?? true),
      path,
      0,
    );
    if (Array.isArray(schema.items) || schema.prefixItems !== undefined)
      this.#note(path, 'its items differ by their place, and are taken as of one kind');
    const count = (value: unknown, keyword: string) => this.#length(value, path, keyword);
    const minItems = count(schema.minItems, 'minItems');
    const maxItems = count(schema.maxItems, 'maxItems');
    const options = optionsOf(items);
    // A list that has to hold something is a required one.
    const required = (minItems ?? 0) > 0 ? { required: true } : {};
    if (options !== null) {
      if (schema.uniqueItems !== true) this.#note(path, 'each option is taken once at most');
      return fieldFrom({
        ...common,
        ...required,
        kind: 'choices',
        options,
        minCount: minItems === 0 ? undefined : minItems,
        maxCount: maxItems,
      });
    }
    const cells = new Names();
    const columns: Field[] = [];
    if (isObject(items.properties)) {
      const asked = new Set(Array.isArray(items.required) ? items.required : []);
      for (const [key, given] of Object.entries(items.properties as Schema)) {
        const at = `${path}[].${key}`;
        const property = this.#resolved(given, at, 0);
        if (this.#isRows(property, at)) {
          this.#note(at, 'rows within rows are left out');
          continue;
        }
        const drafted = this.#field(property, at, key, asked.has(key));
        if (drafted !== null)
          columns.push(fieldFrom({ name: cells.next(key, 'column'), ...drafted }));
      }
      if (
        items.if !== undefined ||
        items.dependentRequired !== undefined ||
        items.allOf !== undefined
      )
        this.#note(path, 'conditions within a row are not taken');
    } else if (!this.#isRows(items, path)) {
      const drafted = this.#field(items, `${path}[]`, 'value', false);
      if (drafted !== null) columns.push(fieldFrom({ name: 'value', ...drafted, required: true }));
    }
    if (columns.length === 0) {
      this.#note(path, 'is a list of what a form cannot have, and is left out');
      return null;
    }
    if (schema.uniqueItems === true) this.#note(path, 'rows may be alike');
    return fieldFrom({
      ...common,
      ...required,
      kind: 'rows',
      fields: columns as CellField[],
      minRows: minItems === 0 ? undefined : minItems,
      maxRows: maxItems,
    });
  }

  /** Whether it is a list of something other than options, which would be rows. */
  #isRows(schema: Schema, path: string): boolean {
    if (typesOf(schema)[0] !== 'array') return false;
    const { items } = schema;
    return Array.isArray(items) || optionsOf(this.#resolved(items ?? true, path, 0)) === null;
  }

  /** Notes keywords that a kind has no use for. */
  #leftOver(schema: Schema, path: string, keywords: readonly string[]): object {
    for (const keyword of keywords)
      if (schema[keyword] !== undefined) this.#note(path, `"${keyword}" is not taken`);
    return {};
  }

  #conditionsOf(schema: Schema, path: string, level: number): void {
    const at = (key: string) => (path === '' ? key : `${path}.${key}`);
    const dependent = {
      ...(isObject(schema.dependencies) ? (schema.dependencies as Schema) : {}),
      ...(isObject(schema.dependentRequired) ? (schema.dependentRequired as Schema) : {}),
    };
    for (const [key, asked] of Object.entries(dependent)) {
      const cause = this.#fields.get(at(key));
      if (!Array.isArray(asked) || cause === undefined) {
        this.#note(at(key), 'what depends on it is not taken');
        continue;
      }
      for (const name of asked) {
        const field = this.#fields.get(at(String(name)));
        if (field === undefined) this.#note(at(String(name)), 'is asked for and not described');
        else this.#conditions.require(field, `!fields.${cause.name}.empty`);
      }
    }
    if (schema.if !== undefined) {
      const when = this.#expression(schema.if, path);
      if (when === null) this.#note(path, 'a condition (if) is not taken: a form cannot say it');
      else {
        this.#consequence(schema.then, when, path);
        this.#consequence(schema.else, `!(${when})`, path);
      }
    }
    const all = Array.isArray(schema.allOf) ? schema.allOf : [];
    for (const given of all) {
      const part = this.#resolved(given, path, 0);
      if (level < LEVELS && (part.if !== undefined || part.dependentRequired !== undefined))
        this.#conditionsOf(part, path, level + 1);
      else this.#note(path, 'a part of "allOf" is not taken');
    }
    for (const keyword of ['oneOf', 'anyOf', 'not', 'dependentSchemas', 'patternProperties'])
      if (schema[keyword] !== undefined) this.#note(path, `"${keyword}" of an object is not taken`);
  }

  /** What an `if` asks, as an expression of the form's language; null where that cannot say it. */
  #expression(given: unknown, path: string): string | null {
    const schema = this.#resolved(given, path, 0);
    const terms: string[] = [];
    for (const [keyword, value] of Object.entries(schema)) {
      if (keyword === 'type' || keyword === '$comment' || keyword === 'title') continue;
      if (keyword === 'required' && Array.isArray(value)) {
        for (const name of value) {
          const field = this.#fields.get(path === '' ? String(name) : `${path}.${String(name)}`);
          if (field === undefined) return null;
          // What is said of its value says as well that it has one.
          if (isObject(schema.properties) && Object.hasOwn(schema.properties, String(name)))
            continue;
          terms.push(`!fields.${field.name}.empty`);
        }
      } else if (keyword === 'properties' && isObject(value)) {
        const required = new Set(Array.isArray(schema.required) ? schema.required : []);
        for (const [key, test] of Object.entries(value as Schema)) {
          const field = this.#fields.get(path === '' ? key : `${path}.${key}`);
          const term = field === undefined ? null : this.#test(test, field);
          if (term === null) return null;
          // What is not there fulfils what is said of it (Core, section 10.3.2.1).
          terms.push(required.has(key) ? term : `(fields.${field!.name}.empty || ${term})`);
        }
      } else return null;
    }
    return terms.length === 0 ? null : [...new Set(terms)].join(' && ');
  }

  /** What is asked of one field that has a value. */
  #test(given: unknown, { name, kind }: Known): string | null {
    if (!isObject(given)) return null;
    const value = `fields.${name}.value`;
    const terms: string[] = [];
    for (const [keyword, asked] of Object.entries(given as Schema)) {
      if (keyword === 'const') terms.push(`${value} === ${literal(asked, kind)}`);
      else if (keyword === 'enum' && Array.isArray(asked) && asked.length > 0)
        terms.push(`(${asked.map((one) => `${value} === ${literal(one, kind)}`).join(' || ')})`);
      else if (
        (keyword === 'minimum' || keyword === 'maximum') &&
        typeof asked === 'number' &&
        kind === 'number'
      )
        terms.push(`(${value} ?? NaN) ${keyword === 'minimum' ? '>=' : '<='} ${asked}`);
      else if (
        (keyword === 'exclusiveMinimum' || keyword === 'exclusiveMaximum') &&
        typeof asked === 'number' &&
        kind === 'number'
      )
        terms.push(`(${value} ?? NaN) ${keyword === 'exclusiveMinimum' ? '>' : '<'} ${asked}`);
      else if (
        keyword === 'contains' &&
        kind === 'choices' &&
        isObject(asked) &&
        typeof (asked as Schema).const === 'string'
      )
        terms.push(`${value}.includes(${literal((asked as Schema).const, kind)})`);
      else if (keyword !== 'type') return null;
    }
    return terms.length === 0 ? null : terms.join(' && ');
  }

  #consequence(given: unknown, when: string, path: string): void {
    if (given === undefined || given === true) return;
    const schema = this.#resolved(given, path, 0);
    for (const [keyword, value] of Object.entries(schema)) {
      if (keyword === 'required' && Array.isArray(value))
        for (const name of value) {
          const field = this.#fields.get(path === '' ? String(name) : `${path}.${String(name)}`);
          if (field === undefined)
            this.#note(path, `"${String(name)}" is asked for and not described`);
          else this.#conditions.require(field, when);
        }
      else if (keyword === 'properties' && isObject(value))
        for (const [key, asked] of Object.entries(value as Schema)) {
          const field = this.#fields.get(path === '' ? key : `${path}.${key}`);
          if (field === undefined)
            this.#note(path, `"${key}" is described only under a condition, and is left out`);
          else this.#refusals(asked, field, when, path === '' ? key : `${path}.${key}`);
        }
      else if (keyword !== 'type' && keyword !== '$comment')
        this.#note(path, `"${keyword}" under a condition is not taken`);
    }
  }

  /** What a field may be under a condition. */
  #refusals(given: unknown, field: Known, when: string, path: string): void {
    if (given === true) return;
    if (given === false) {
      this.#conditions.refuse(
        field,
        `${when} && !fields.${field.name}.empty`,
        'This is left empty here.',
      );
      return;
    }
    const value = `fields.${field.name}.value`;
    for (const [keyword, asked] of Object.entries(isObject(given) ? (given as Schema) : {})) {
      const refuse = (wrong: string, says: string) =>
        this.#conditions.refuse(field, `${when} && !fields.${field.name}.empty && ${wrong}`, says);
      if (keyword === 'const')
        refuse(`${value} !== ${literal(asked, field.kind)}`, `Only ${String(asked)} here.`);
      else if (keyword === 'enum' && Array.isArray(asked) && asked.length > 0)
        refuse(
          asked.map((one) => `${value} !== ${literal(one, field.kind)}`).join(' && '),
          `Only ${asked.map(String).join(', ')} here.`,
        );
      else if (keyword === 'minimum' && typeof asked === 'number' && field.kind === 'number')
        refuse(`(${value} ?? ${asked}) < ${asked}`, `At least ${asked} here.`);
      else if (keyword === 'maximum' && typeof asked === 'number' && field.kind === 'number')
        refuse(`(${value} ?? ${asked}) > ${asked}`, `At most ${asked} here.`);
      else if (keyword === 'minLength' && typeof asked === 'number' && field.kind === 'text')
        refuse(`(${value} ?? "").length < ${asked}`, `At least ${asked} characters here.`);
      else if (keyword === 'maxLength' && typeof asked === 'number' && field.kind === 'text')
        refuse(`(${value} ?? "").length > ${asked}`, `At most ${asked} characters here.`);
      else if (keyword !== 'type' && keyword !== '$comment' && keyword !== 'title')
        this.#note(path, `"${keyword}" under a condition is not taken`);
    }
  }
}

/** A value as a script compares it: options are keys, which are texts. */
function literal(value: unknown, kind: string): string {
  return JSON.stringify(
    kind === 'choice' || kind === 'choices' || kind === 'text' ? String(value) : value,
  );
}

function labelOf(schema: Schema, key: string): string {
  return shortened(
    typeof schema.title === 'string' && schema.title.trim() !== '' ? schema.title : labelFrom(key),
  );
}

/** The types it may have, without null. */
function typesOf(schema: Schema): string[] {
  const { type } = schema;
  const all = (Array.isArray(type) ? type : [type]).filter(
    (one): one is string => typeof one === 'string',
  );
  const held = all.filter((one) => one !== 'null');
  if (held.length > 0 || all.length > 0) return held.length > 0 ? held : ['null'];
  // Keywords say it where the type does not.
  if (isObject(schema.properties)) return ['object'];
  if (schema.items !== undefined) return ['array'];
  if (
    ['minimum', 'maximum', 'multipleOf', 'exclusiveMinimum', 'exclusiveMaximum'].some(
      (one) => one in schema,
    )
  )
    return ['number'];
  return ['minLength', 'maxLength', 'pattern', 'format'].some((one) => one in schema)
    ? ['string']
    : [];
}

/** The options of a schema that lists its values: `enum`, or `oneOf` and `anyOf` of constants with titles. */
function optionsOf(schema: Schema): { key: string; label: string }[] | null {
  const listed = (values: readonly { value: unknown; title: unknown }[]) => {
    const held = values.filter(({ value }) => value !== null);
    if (
      held.length === 0 ||
      !held.every(({ value }) => typeof value === 'string' || typeof value === 'number')
    )
      return null;
    const seen = new Set<string>();
    return held.flatMap(({ value, title }) => {
      const key = String(value);
      if (key === '' || key.length > 200 || seen.has(key)) return [];
      seen.add(key);
      return [
        { key, label: shortened(typeof title === 'string' && title.trim() !== '' ? title : key) },
      ];
    });
  };
  if (Array.isArray(schema.enum))
    return listed(schema.enum.map((value) => ({ value, title: null })));
  for (const keyword of ['oneOf', 'anyOf']) {
    const given = schema[keyword];
    if (!Array.isArray(given)) continue;
    const options = given.filter((one) => !(isObject(one) && (one as Schema).type === 'null'));
    if (options.length > 0 && options.every((one) => isObject(one) && 'const' in one))
      return listed(
        options.map((one) => ({ value: (one as Schema).const, title: (one as Schema).title })),
      );
  }
  return 'const' in schema ? listed([{ value: schema.const, title: schema.title }]) : null;
}

function defaultOf(schema: Schema, type: 'boolean' | 'number'): unknown {
  return typeof schema.default === type ? schema.default : undefined;
}

/** By decimal digits, since 0.3 is no multiple of 0.1 in binary ones. */
function isMultiple(value: number, of: number): boolean {
  const quotient = value / of;
  return Math.abs(quotient - Math.round(quotient)) < 1e-9;
}

/** Whether each bracket of a pattern closes what was opened before it. */
function isBalanced(pattern: string): boolean {
  let open = 0;
  for (const letter of pattern.replace(/\\./g, '').replace(/\[[^\]]*\]/g, '')) {
    if (letter === '(') open++;
    if (letter === ')' && --open < 0) return false;
  }
  return open === 0;
}
