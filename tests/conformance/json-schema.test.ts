/**
 * JSON Schemas of the demo's forms, read by Ajv (draft 2020-12): its records and whatever 1,000 random sessions submit are
 * valid; and each schema comes in again as the form it went out of, as far as JSON Schema can say that.
 */
import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Field } from '../../src/core/form/definition';
import { fieldsOf } from '../../src/core/form/fields';
import type { Value, Values } from '../../src/core/form/value';
import { fromJsonSchema } from '../../src/core/interchange/from-json-schema';
import { steeredBy } from '../../src/core/interchange/steered';
import { toJsonSchema, unsaidIn } from '../../src/core/interchange/to-json-schema';
import { libs } from '../../src/core/language/generated/libs';
import { scriptsOf } from '../../src/core/script/of-form';
import { readWorkspace } from '../../src/core/workspace/workspace';
import { readFolder } from '../../src/workers/files';
import { choices, formWith, number, text, yesNo } from '../support/forms';
import { bootMachine, inMachine } from '../support/hosts';
import { thorough } from '../support/thorough';

beforeAll(bootMachine);

const demo = readWorkspace(readFolder('demo'));
const forms = demo.forms.map(({ form, behaviours, records }) => {
  const scripts = scriptsOf(form, behaviours, demo.shared);
  const schema = toJsonSchema(form, steeredBy(demo, form, scripts, libs));
  const texts = Object.fromEntries(
    scripts.map(({ name, text }) => [name.replace(/\.ts$/, ''), text]),
  );
  return { form, scripts: texts, records, schema };
});

const ajv = new Ajv({ strict: true, allErrors: true, allowUnionTypes: true });
addFormats(ajv, ['date', 'date-time', 'email', 'uri']);

/** What is wrong with a value by a schema; the empty text for nothing. */
function wrongWith(schema: object, value: unknown): string {
  const validate = ajv.compile(schema);
  return validate(value) ? '' : ajv.errorsText(validate.errors);
}

/** Numbers that are the same in every run. */
function random(seed: number): (below: number) => number {
  let state = seed * 7919 + 13;
  return (below) => {
    state = (state * 48_271) % 2_147_483_647;
    return state % below;
  };
}

const pick = <T>(from: readonly T[], dice: (below: number) => number): T =>
  from[dice(from.length)]!;

/** A value that somebody could enter, more often a fitting one than not. */
function valueFor(field: Field, dice: (below: number) => number): Value {
  if (dice(12) === 0) return null;
  switch (field.kind) {
    case 'text':
      if (field.format === 'email') return 'office@example.org';
      if (field.format === 'imo') return '9074729';
      if (field.format === 'phone') return '+44 20 7946 0000';
      if (field.format === 'url') return 'https://example.org/a';
      return pick(
        ['Halcyon Ore', '9074729', 'UN 1203', 'AB1234567', '1263', 'x'.repeat(30), '1', '🚢'],
        dice,
      );
    case 'number':
    case 'money':
      return pick([field.min ?? 1, field.max ?? 80, 4, 12.5, -1, 9999], dice);
    case 'date':
      return pick(['2031-05-01', '2031-05-03', '2031-05-09', '2032-06-01', '2031-05-02'], dice);
    case 'time':
      return pick(['08:00', '10:30', '23:15'], dice);
    case 'datetime':
      return pick(['2031-05-06T18:00:00Z', '2031-05-06T20:30:00Z', '2031-05-07T08:00:00Z'], dice);
    case 'yes_no':
      return dice(3) > 0;
    case 'choice':
      return pick(field.options, dice)?.key ?? null;
    case 'choices':
      return field.options.filter(() => dice(3) === 0).map(({ key }) => key);
    case 'reference': {
      const table = demo.tables.find(({ name }) => name === field.table)!;
      return String(pick(table.rows, dice)[table.key]);
    }
    case 'file':
      return dice(2) === 0 ? [] : [{ name: 'a.pdf', size: 10, type: 'application/pdf' }];
    case 'rows':
      return [];
  }
}

/** Plays a session and gives what it submits at last; null where it never gets that far. */
function submitted(seed: number): { form: string; values: Values } | null {
  const dice = random(seed);
  const { form, scripts, records } = pick(forms, dice);
  const record = dice(3) === 0 && records.length > 0 ? pick(records, dice) : undefined;
  const use = inMachine(
    {
      form,
      tables: demo.tables,
      services: demo.services,
      scripts,
      roles: pick([['clerk'], ['agent'], ['clerk', 'master']], dice),
      ...(record === undefined ? {} : { record }),
    },
    false,
  );
  const fields = fieldsOf(form);
  const enter = (name: string) => {
    const field = fields.find((one) => one.name === name);
    if (field === undefined) return;
    if (field.kind !== 'rows') return void use.do({ set: name, to: valueFor(field, dice) });
    const cells = Object.fromEntries(field.fields.map((cell) => [cell.name, valueFor(cell, dice)]));
    use.do({ addRow: name, with: cells });
  };
  for (let i = 0; i < 10; i++) enter(pick(fields, dice).name);
  for (let i = 0; i < 40; i++) {
    const { submit } = use.do({ submit: true });
    if (submit?.saved === true) return { form: form.name, values: submit.values };
    const at = submit?.saved === false ? submit.stoppedBy : null;
    if (at === null || at === undefined) return null;
    const cell = /^(\w+)\[(\d+)\]\.(\w+)$/.exec(at);
    if (cell === null) enter(at);
    else {
      const rows = fields.find(({ name }) => name === cell[1]);
      const column =
        rows?.kind === 'rows' ? rows.fields.find(({ name }) => name === cell[3]) : undefined;
      if (column !== undefined) use.do({ set: at, to: valueFor(column, dice) });
    }
  }
  return null;
}

/** A tenth in npm test, so that each form is among them. */
const SESSIONS = thorough ? 1000 : 100;

test('whatever random sessions submit is valid by the schema of their form', () => {
  const counts = new Map<string, number>();
  for (let seed = 1; seed <= SESSIONS; seed++) {
    const came = submitted(seed);
    if (came === null) continue;
    counts.set(came.form, (counts.get(came.form) ?? 0) + 1);
    const { schema } = forms.find(({ form }) => form.name === came.form)!;
    expect(`${seed} ${came.form}: ${wrongWith(schema, came.values)}`).toBe(
      `${seed} ${came.form}: `,
    );
  }
  // Of every form, and not a handful of them.
  expect([...counts.keys()].toSorted()).toEqual(forms.map(({ form }) => form.name).toSorted());
  expect([...counts.values()].reduce((sum, count) => sum + count, 0)).toBeGreaterThan(
    0.3 * SESSIONS,
  );
}, 240_000);

describe.each(forms.map((one) => [one.form.name, one] as const))(
  'the schema of %s',
  (_, { form, schema, records }) => {
    test('is one, and takes the records of the demo', () => {
      expect(ajv.validateSchema(schema)).toBe(true);
      for (const { id, values } of records)
        expect(`${id}: ${wrongWith({ ...schema, required: [] }, values)}`).toBe(`${id}: `);
    });

    test('refuses what is of another kind', () => {
      for (const field of fieldsOf(form)) {
        const wrong = field.kind === 'number' || field.kind === 'money' ? 'many' : 5;
        expect(wrongWith({ ...schema, required: [] }, { [field.name]: wrong })).not.toBe('');
      }
      expect(wrongWith({ ...schema, required: [] }, { no_such_field: 1 })).not.toBe('');
    });

    test('comes in again as fields of the same names, labels and kinds', () => {
      const { form: again } = fromJsonSchema(JSON.stringify(schema), 'x');
      const said = new Map<string, string>([
        ['reference', 'text'],
        ['money', 'number'],
        ['time', 'text'],
        ['file', 'rows'],
      ]);
      expect(fieldsOf(again).map(({ name, label, kind }) => [name, label, kind])).toEqual(
        fieldsOf(form).map(({ name, label, kind }) => [name, label, said.get(kind) ?? kind]),
      );
      const options = (of: typeof form) =>
        fieldsOf(of).map((field) => ('options' in field ? field.options : null));
      expect(options(again)).toEqual(options(form));
    });
  },
);

test('what scripts can hide or no longer ask for is saved as it stands, and valid', () => {
  const form = formWith(
    [
      yesNo('away'),
      number('draught', { max: 5 }),
      number('kept', { max: 5 }),
      number('omitted', { max: 5, whenHidden: 'omit' }),
      text('asked', { required: true }),
      text('note', { required: true }),
      choices('uses', ['tug', 'fender'], { minCount: 2, maxCount: 2 }),
    ],
    { name: 'small' },
  );
  const scripts = [
    {
      name: '10-away.ts',
      text: `keep("away", () => {
  const away = fields.away.value === true;
  for (const field of [fields.draught, fields.omitted, fields.asked]) field.shown = !away;
  fields.note.required = !away;
});`,
    },
  ];
  const schema = toJsonSchema(form, steeredBy(demo, form, scripts, libs));
  const save = (steps: Values) => {
    const use = inMachine({ form, scripts: { '10-away': scripts[0]!.text } });
    for (const [set, to] of Object.entries(steps)) use.do({ set, to: to as Value });
    const { submit } = use.do({ submit: true });
    return submit?.saved === true ? submit.values : null;
  };
  const away = save({ draught: 9, omitted: 9, away: true })!;
  expect(away).toMatchObject({ draught: 9, omitted: null, asked: null, note: null, uses: [] });
  expect(wrongWith(schema, away)).toBe('');
  // What stays on screen is held to its limits, by the form and by the schema.
  expect(save({ kept: 9, away: true })).toBe(null);
  expect(wrongWith(schema, { ...away, kept: 9 })).toContain('must be <= 5');
  expect(wrongWith(schema, { ...away, omitted: 9 })).toContain('must be <= 5');
  expect(wrongWith(schema, { ...away, uses: ['tug', 'fender', 'tug'] })).not.toBe('');
  const unsteered = toJsonSchema(form, new Set());
  expect(wrongWith(unsteered, away)).toContain('must be string');
});

test('what JSON Schema has no words for is listed', () => {
  const visit = forms.find(({ form }) => form.name === 'berth_visit')!;
  expect(
    unsaidIn(visit.form).some((line) => line.startsWith('berth: which keys the table berths has')),
  ).toBe(true);
});
