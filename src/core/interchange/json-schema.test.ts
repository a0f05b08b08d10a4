/**
 * JSON Schema in: the official JSON Schema Test Suite as json-schema-test-suite 0.0.10 carries it (draft 4, of keywords
 * that mean the same in 2020-12), and what else a schema can say; the behaviours that come of conditions are run.
 */
// oxlint-disable unicorn/no-thenable -- JSON Schema has a keyword of that name
import { createRequire } from 'node:module';
import { beforeAll, describe, expect, test } from 'vitest';
import { bootMachine, inMachine } from '../../../tests/support/hosts';
import type { Field } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { kindOf } from '../form/kinds';
import type { Value, Values } from '../form/value';
import { fromJsonSchema } from './from-json-schema';
import { NothingToTake } from './taken';

beforeAll(bootMachine);

interface Case {
  name: string;
  schemas: {
    description: string;
    schema: object;
    tests: { description: string; data: unknown; valid: boolean }[];
  }[];
}
const suite = createRequire(import.meta.url)('json-schema-test-suite') as {
  draft4(filter: (file: string) => boolean): Case[];
};

/** Keywords of one value, whose meaning draft 4 and 2020-12 share; drafts before 6 say an open bound otherwise. */
const KEYWORDS = [
  'type',
  'enum',
  'minLength',
  'maxLength',
  'pattern',
  'minimum',
  'maximum',
  'multipleOf',
];
const around = { table: () => null } as never;
const fits = (pattern: string, text: string) => new RegExp(`^(?:${pattern})$`, 'u').test(text);

/** Whether a form takes a value for a field; null where what is typed there can never be such a value. */
function takes(field: Field, data: unknown): boolean | null {
  const kind = kindOf(field);
  if (data === null || data === '' || (Array.isArray(data) && data.length === 0)) return null;
  const accepted = kind.accept(data, field, around);
  if (!accepted.ok) return null;
  return kind.check(accepted.value, field, fits) === null;
}

describe('the official test suite', () => {
  let compared = 0;
  const cases = suite.draft4((file) => KEYWORDS.includes(file.replace(/\.json$/, '')));
  const rows = cases.flatMap(({ name, schemas }) => schemas.map((one) => ({ name, ...one })));

  test.each(rows.map((row) => [row.name, row.description, row] as const))(
    '%s: %s',
    (_, __, { schema, tests }) => {
      const { form, notes } = fromJsonSchema(
        JSON.stringify({ type: 'object', properties: { it: schema, beside: { type: 'string' } } }),
        'x',
      );
      const field = fieldsOf(form).find(({ name }) => name === 'it');
      if (field === undefined || notes.length > 0) return;
      for (const { description, data, valid } of tests) {
        const held = takes(field, data);
        if (held === null) continue;
        compared++;
        // HTML counts UTF-16 code units where JSON Schema counts characters: a form does as HTML does.
        const expected = description.includes('supplementary') ? !valid : valid;
        expect([description, held]).toEqual([description, expected]);
      }
    },
  );

  test('was compared value by value', () => {
    expect(rows.length).toBeGreaterThan(15);
    expect(compared).toBeGreaterThan(20);
  });
});

const schema = (properties: object, more: object = {}) =>
  fromJsonSchema(JSON.stringify({ title: 'Visit', type: 'object', properties, ...more }), 'x');
const fieldIn = (property: object) => fieldsOf(schema({ a: property }).form)[0]!;

describe('a property becomes a field', () => {
  test.each<[string, object, object]>([
    [
      'a text',
      { type: 'string', title: 'Name', description: 'As in the register', maxLength: 40 },
      { kind: 'text', label: 'Name', help: 'As in the register', maxLength: 40 },
    ],
    ['a long text', { type: 'string', maxLength: 2000 }, { kind: 'text', lines: 3 }],
    [
      'a whole number',
      { type: 'integer', exclusiveMinimum: 0, maximum: 9 },
      { kind: 'number', step: 1, min: 1, max: 9, decimals: 0 },
    ],
    [
      'multiples from a minimum',
      { type: 'integer', minimum: 3, multipleOf: 5 },
      { kind: 'number', step: 5, min: 5 },
    ],
    [
      'a date',
      { type: 'string', format: 'date', default: '2031-05-02' },
      { kind: 'date', default: '2031-05-02' },
    ],
    ['a moment', { type: ['string', 'null'], format: 'date-time' }, { kind: 'datetime' }],
    ['yes or no', { type: 'boolean', default: true }, { kind: 'yes_no', default: true }],
    [
      'an enum',
      { enum: ['own', 'none', null] },
      {
        kind: 'choice',
        options: [
          { key: 'own', label: 'own' },
          { key: 'none', label: 'none' },
        ],
      },
    ],
    [
      'titled constants',
      { oneOf: [{ const: 'own', title: 'Own pilot' }, { type: 'null' }] },
      { kind: 'choice', options: [{ key: 'own', label: 'Own pilot' }] },
    ],
    [
      'a set of options',
      { type: 'array', uniqueItems: true, minItems: 1, maxItems: 2, items: { enum: ['a', 'b'] } },
      { kind: 'choices', required: true, minCount: 1, maxCount: 2 },
    ],
    [
      'rows',
      {
        type: 'array',
        items: { type: 'object', required: ['n'], properties: { n: { type: 'number' } } },
      },
      { kind: 'rows', fields: [{ name: 'n', label: 'N', kind: 'number', required: true }] },
    ],
    [
      'a list of texts',
      { type: 'array', items: { type: 'string' } },
      { kind: 'rows', fields: [{ name: 'value', kind: 'text' }] },
    ],
    ['read only', { type: 'string', readOnly: true }, { locked: true }],
    ['an anchored pattern', { type: 'string', pattern: '^(?:[A-Z]{2})$' }, { pattern: '[A-Z]{2}' }],
    [
      'an anchored pattern of alternatives',
      { type: 'string', pattern: '^a|b$' },
      { pattern: '[\\s\\S]*(?:^a|b$)[\\s\\S]*' },
    ],
    ['a pattern', { type: 'string', pattern: 'b' }, { pattern: '[\\s\\S]*(?:b)[\\s\\S]*' }],
    ['without a type', { minimum: 3 }, { kind: 'number', min: 3 }],
    ['an e-mail address', { type: 'string', format: 'email' }, { format: 'email' }],
  ])('%s', (_, property, expected) => {
    expect(fieldIn(property)).toMatchObject(expected);
  });

  test('references are followed, objects become sections, names become technical', () => {
    const { form, notes } = schema(
      {
        vesselName: { $ref: '#/$defs/text' },
        owner: {
          type: 'object',
          title: 'Owner',
          required: ['name'],
          properties: { name: { type: 'string' }, 'e-mail': { type: 'string' } },
        },
        round: { $ref: '#/$defs/round' },
      },
      { $defs: { text: { type: 'string', maxLength: 9 }, round: { $ref: '#/$defs/round' } } },
    );
    expect(
      form.pages[0]!.sections.map(({ title, fields }) => [
        title,
        fields.map(({ name, label, required }) => [name, label, required === true]),
      ]),
    ).toEqual([
      [
        'Visit',
        [
          ['vesselname', 'Vessel name', false],
          ['round', 'Round', false],
        ],
      ],
      [
        'Owner',
        [
          ['owner_name', 'Name', true],
          ['owner_e_mail', 'E mail', false],
        ],
      ],
    ]);
    expect(notes).toEqual([
      'round: refers to #/$defs/round, which is not followed',
      'round: says no type that a form has; it is taken as a text',
    ]);
  });

  test('what cannot be taken is listed with its place', () => {
    expect(
      schema(
        {
          a: { type: 'string', format: 'hostname', contentEncoding: 'base64' },
          b: { type: ['string', 'integer'] },
          c: { type: 'object' },
          d: { type: 'number', exclusiveMaximum: 5 },
        },
        { not: { required: ['a'] }, required: ['z'] },
      ).notes,
    ).toEqual([
      'a: "contentEncoding" is not taken',
      'a: the format "hostname" is not checked',
      'b: may be string or integer, of which a form takes one: string',
      'c: is an object without properties, and is left out',
      'd: 5 itself is allowed: a form has no bound that is left out',
      '"z" is required and not described',
      '"not" of an object is not taken',
    ]);
  });

  test.each([
    ['nope', 'not JSON'],
    ['[]', 'no JSON Schema'],
    ['{"type":"string"}', 'no object with properties'],
    ['{"properties":{}}', 'no field'],
    ['{"properties":{"a":{"type":"null"}}}', 'no field'],
  ])('%j is refused in words', (text, says) => {
    expect(() => fromJsonSchema(text, 'x')).toThrow(NothingToTake);
    expect(() => fromJsonSchema(text, 'x')).toThrow(says);
  });

  test('lists within lists, and schemas that go round in a circle, come to an end', () => {
    const round = {
      list: { type: 'array', items: { $ref: '#/properties/list' } },
      rows: {
        type: 'array',
        items: {
          type: 'object',
          properties: { n: { type: 'number' }, more: { $ref: '#/properties/rows' } },
        },
      },
      whole: { $ref: '#' },
    };
    const { form, notes } = schema(round);
    expect(fieldsOf(form).map(({ kind }) => kind)).toContain('rows');
    expect(notes).toContain('rows[].more: rows within rows are left out');
    expect(notes).toContain('list: is a list of what a form cannot have, and is left out');
    const wide = Object.fromEntries(Array.from({ length: 60 }, (_, i) => [`p${i}`, { $ref: '#' }]));
    expect(() => schema({ ...wide, a: { type: 'string' } })).not.toThrow(RangeError);
  });

  test('names like those of every object are only names', () => {
    const { form } = fromJsonSchema(
      '{"properties":{"constructor":{"type":"string"},"__proto__":{"type":"string"},"toString":{"type":"string"}},"required":["hasOwnProperty"]}',
      'x',
    );
    expect(fieldsOf(form).map(({ name }) => name)).toEqual(['field', 'proto', 'tostring']);
  });
});

describe('conditions come as behaviours that do what the schema says', () => {
  /** The form with its behaviours in use. */
  const using = (properties: object, more: object) => {
    const { form, behaviours, notes } = schema(properties, more);
    expect(notes).toEqual([]);
    return inMachine({
      form,
      scripts: Object.fromEntries(
        behaviours.map(({ name, text }) => [name.replace(/\.ts$/, ''), text]),
      ),
    });
  };
  const after = (use: ReturnType<typeof using>, values: Values) => {
    for (const [set, to] of Object.entries(values)) use.do({ set, to: to as Value });
    return use;
  };
  const A = { type: 'string' };
  const N = { type: 'number' };

  test('dependentRequired', () => {
    const use = using(
      { card: A, bill: A, name: { ...A } },
      { dependentRequired: { card: ['bill', 'name'] } },
    );
    expect(use.part('bill')!.required).toBe(false);
    expect(after(use, { card: '12' }).part('bill')!.required).toBe(true);
    expect(after(use, { card: null }).part('name')!.required).toBe(false);
  });

  test('if, then and else, with several conditions on one field in one rule', () => {
    const use = using(
      { sort: { enum: ['tug', 'yacht', 'none'] }, crew: N, berth: A },
      {
        allOf: [
          {
            if: { properties: { sort: { const: 'tug' } }, required: ['sort'] },
            then: { required: ['crew'], properties: { crew: { minimum: 2 } } },
            else: { required: ['berth'] },
          },
          {
            if: { properties: { sort: { enum: ['yacht'] } }, required: ['sort'] },
            then: { required: ['crew'] },
          },
        ],
      },
    );
    expect([use.part('crew')!.required, use.part('berth')!.required]).toEqual([false, true]);
    after(use, { sort: 'tug', crew: 1 });
    expect([
      use.part('crew')!.required,
      use.part('berth')!.required,
      use.part('crew')!.problem,
    ]).toEqual([true, false, 'At least 2 here.']);
    expect(after(use, { crew: 2 }).part('crew')!.problem).toBe(null);
    expect(after(use, { sort: 'yacht', crew: 1 }).part('crew')).toMatchObject({
      required: true,
      problem: null,
    });
    expect(after(use, { sort: 'none' }).part('crew')!.required).toBe(false);
  });

  test('what is not there fulfils what is said of it (Core, section 10.3.2.1)', () => {
    const use = using(
      { n: N, why: A },
      { if: { properties: { n: { minimum: 10 } } }, then: { required: ['why'] } },
    );
    expect(use.part('why')!.required).toBe(true);
    expect(after(use, { n: 3 }).part('why')!.required).toBe(false);
    expect(after(use, { n: 12 }).part('why')!.required).toBe(true);
  });

  test('a condition that a form cannot say is listed', () => {
    expect(
      schema(
        { a: A, b: A },
        { if: { properties: { a: { pattern: 'x' } } }, then: { required: ['b'] } },
      ).notes,
    ).toEqual(['a condition (if) is not taken: a form cannot say it']);
  });
});
