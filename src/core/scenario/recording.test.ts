import * as fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { FormSchema } from '../form/definition';
import { fieldsOf } from '../form/fields';
import { ServiceSchema } from '../form/service';
import { TableSchema } from '../form/table';
import type { Opening, TimedStep } from '../session/step';
import { masked } from './masking';
import { openingOf } from './opening';
import { castOf, openOf } from './recorded';

const form = formWith([
  text('name'),
  number('length'),
  choice('kind', ['tug']),
  rows('cargo', [text('goods'), number('weight')]),
]);

/** A form with a field of every kind, and what it is filled in with. */
const EVERYTHING = {
  everything: FormSchema.parse({
    name: 'everything',
    title: 'Everything',
    launch: [
      { name: 'from', kind: 'text' },
      { name: 'since', kind: 'date' },
    ],
    pages: [
      {
        name: 'all',
        title: 'All',
        sections: [
          {
            name: 'one',
            title: 'One',
            fields: [
              { name: 'word', label: 'Word', kind: 'text' },
              { name: 'amount', label: 'Amount', kind: 'number' },
              { name: 'fee', label: 'Fee', kind: 'money' },
              { name: 'day', label: 'Day', kind: 'date' },
              { name: 'hour', label: 'Hour', kind: 'time' },
              { name: 'moment', label: 'Moment', kind: 'datetime' },
              { name: 'ready', label: 'Ready', kind: 'yes_no' },
              {
                name: 'kind',
                label: 'Kind',
                kind: 'choice',
                options: [{ key: 'tug', label: 'Tug' }],
              },
              {
                name: 'several',
                label: 'Several',
                kind: 'choices',
                options: [{ key: 'a', label: 'A' }],
              },
              { name: 'berth', label: 'Berth', kind: 'reference', table: 'berths' },
              { name: 'plan', label: 'Plan', kind: 'file' },
              {
                name: 'list',
                label: 'List',
                kind: 'rows',
                fields: [
                  { name: 'goods', label: 'Goods', kind: 'text' },
                  { name: 'weight', label: 'Weight', kind: 'number' },
                ],
              },
            ],
          },
        ],
      },
    ],
  }),
  tables: [
    TableSchema.parse({
      name: 'berths',
      title: 'Berths',
      label: 'code',
      key: 'code',
      columns: [{ name: 'code', kind: 'text', label: 'Code' }],
      rows: [{ code: 'sq1' }],
    }),
  ],
  services: [
    ServiceSchema.parse({
      name: 'register',
      title: 'Register',
      functions: {
        find: {
          parameters: [],
          answers: { from: 'script', script: 'return null;', gives: '{ name: string } | null' },
        },
      },
    }),
  ],
};

const around = { form, tables: [], services: [] };

const opening: Opening = {
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: { id: '7', values: { name: 'Grey Heron', cargo: [{ goods: 'Gravel', weight: 2 }] } },
  launch: {},
  clock: Date.parse('2031-05-02T09:00:00Z'),
  seed: 4,
  newId: '12',
};

describe('masking', () => {
  test('replaces letters and digits of typed texts and leaves their pattern, all else as it was', () => {
    const found = masked(
      {
        opening,
        steps: [
          { set: 'name', to: 'Ötter 12-b', at: 5 },
          { input: 'name', to: 'x1' },
          { set: 'kind', to: 'tug' },
          { set: 'length', to: 12 },
          { set: 'cargo[0].goods', to: 'Coal' },
          { addRow: 'cargo', with: [{ goods: 'Sand', weight: 1 }] },
          { addRow: 'cargo', with: { goods: 'Salt' } },
          { submit: true },
        ],
        ended: { name: 'Ötter', length: 12, cargo: [{ goods: 'Coal', weight: 1 }] },
      },
      around,
    );
    expect(found.steps).toEqual([
      { set: 'name', to: 'Xxxxx 00-x', at: 5 },
      { input: 'name', to: 'x0' },
      { set: 'kind', to: 'tug' },
      { set: 'length', to: 12 },
      { set: 'cargo[0].goods', to: 'Xxxx' },
      { addRow: 'cargo', with: [{ goods: 'Xxxx', weight: 1 }] },
      { addRow: 'cargo', with: { goods: 'Xxxx' } },
      { submit: true },
    ]);
    expect(found.opening.record!.values).toEqual({
      name: 'Xxxx Xxxxx',
      cargo: [{ goods: 'Xxxxxx', weight: 2 }],
    });
    expect(found.ended).toMatchObject({ name: 'Xxxxx', length: 12 });
  });

  test('takes a value that is no text as it is', () => {
    const steps = [{ set: 'name', to: null }];
    expect(masked({ opening, steps, ended: null }, around).steps).toEqual(steps);
  });
});

describe('masking leaves only what is known to be harmless', () => {
  const { everything, tables, services } = EVERYTHING;
  const WORD = 'Zephyrine';
  /** A word that may stand anywhere, in letters, in digits that are not 0–9, and as a number. */
  const word = fc.constantFrom(
    WORD,
    `${WORD}-٣٤`,
    '٣٤٥',
    '½Ⅷ②',
    `a ${WORD}@x.example`,
    '🛳️',
    '北海',
  );
  const secret = fc.oneof(word, fc.constant(918273645));
  const secretValue: fc.Arbitrary<unknown> = fc.oneof(
    secret,
    fc.array(secret, { maxLength: 2 }),
    fc.array(
      fc.dictionary(fc.constantFrom('goods', 'weight', 'Zephyrine'), secret, { minKeys: 1 }),
      {
        maxLength: 2,
      },
    ),
    fc.dictionary(fc.constantFrom('name', 'size', 'type', 'digest', WORD), secret, { maxKeys: 3 }),
  );
  const fieldNames = fieldsOf(everything).map(({ name }) => name);
  const anyPart = fc.constantFrom(
    ...fieldNames,
    'list[0].goods',
    'list[3].nothing',
    WORD,
    'no_field',
  );
  const values = fc.dictionary(fc.constantFrom(...fieldNames, 'zephyrine'), secretValue, {
    maxKeys: 6,
  });
  const step = fc.oneof(
    fc.record({ set: anyPart, to: secretValue }),
    fc.record({ input: anyPart, to: secretValue }),
    fc.record({ fromChild: anyPart, to: secretValue }),
    fc.record({ addRow: anyPart, with: fc.oneof(values, fc.array(values, { maxLength: 2 })) }),
    fc.record({ answer: fc.constantFrom('register.find', WORD), with: secretValue }),
    fc.record({ answer: fc.constant('register.find'), fails: word }),
    ...['focus', 'blur', 'click', 'turnTo', 'removeRow'].map((kind) =>
      anyPart.map((part) => ({ [kind]: part })),
    ),
  );
  const record = fc.record({ id: word, values });
  const opened = fc.record({
    person: fc.record({ key: word, name: word, roles: fc.constant(['clerk']) }),
    record: fc.option(record),
    launch: fc.dictionary(fc.constantFrom('from', 'since', 'zephyrine'), secretValue),
    clock: fc.constant(opening.clock),
    seed: fc.constant(4),
    newId: word,
    records: fc.array(record, { maxLength: 2 }),
    parent: fc.record({
      form: fc.constant('vessel'),
      record: word,
      fields: fc.constant(fieldsOf(everything)),
      values,
    }),
    services: fc.dictionary(
      fc.constantFrom('register', 'register.find', 'zephyrine'),
      fc.record({ fails: word }),
    ),
  });

  // Where a field of its kind holds it, a number is what behaviours decide by.
  const mayStay = /918273645/g;

  test('a marked word is nowhere left, wherever it stood', () => {
    fc.assert(
      fc.property(opened, fc.array(step, { maxLength: 8 }), values, (from, steps, ended) => {
        const left = JSON.stringify(
          masked({ opening: from, steps, ended } as never, { form: everything, tables, services }),
        );
        expect(left).not.toMatch(/zephyrine|[^\x20-\x7e]/i);
      }),
      { numRuns: 500 },
    );
  });

  test('a number stays in fields of numbers, and in no other place', () => {
    const only = (part: string) =>
      JSON.stringify(
        masked(
          { opening, steps: [{ set: part, to: 918273645 }], ended: { [part]: 918273645 } },
          { form: everything, tables, services },
        ),
      ).match(mayStay)?.length ?? 0;
    expect(fieldNames.filter((name) => only(name) > 0)).toEqual(['amount', 'fee']);
  });

  test('what is chosen stays, and what is no option does not', () => {
    const steps = [
      { set: 'kind', to: 'tug' },
      { set: 'kind', to: 'Tug' },
      { set: 'several', to: ['a', 'Zephyrine'] },
      { set: 'berth', to: 'sq1' },
      { set: 'berth', to: 'sq9' },
      { set: 'day', to: '2031-05-02' },
      { set: 'day', to: 'on Friday' },
      { set: 'list', to: [{ goods: 'Coal', weight: 3, more: 'x' }] },
      { set: 'plan', to: [{ name: 'plan.pdf', size: 9, type: 'application/pdf', digest: 'ab1' }] },
    ] as TimedStep[];
    expect(
      masked({ opening, steps, ended: null }, { form: everything, tables, services }).steps.map(
        (one) => (one as { to: unknown }).to,
      ),
    ).toEqual([
      'tug',
      'Xxx',
      ['a', 'Xxxxxxxxx'],
      'sq1',
      'xx0',
      '2031-05-02',
      'xx Xxxxxx',
      [{ goods: 'Xxxx', weight: 3 }],
      [{ name: 'xxxx.xxx', size: 9, type: 'application/xxx', digest: 'xx0' }],
    ]);
  });
});

describe('an opening as scenarios say it', () => {
  test('opens as the recording did, with its own person, record and parent', () => {
    const parent = {
      form: 'vessel',
      record: '3',
      fields: [text('flag')],
      values: { flag: 'QH' },
    };
    const recorded: Opening = { ...opening, parent, zone: 'Europe/Lisbon', viewing: true };
    const cast = castOf(recorded, {
      people: [{ key: 'mira', name: 'Somebody else', roles: ['agent'] }],
      records: [{ id: '7', values: { name: 'of today' } }],
      forms: [],
    });
    const again = openingOf(openOf(recorded), form, cast);
    expect(again).toMatchObject({
      person: recorded.person,
      record: recorded.record,
      parent,
      clock: recorded.clock,
      seed: 4,
      zone: 'Europe/Lisbon',
      viewing: true,
    });
  });

  test('of a new entry is one', () => {
    const fresh = { ...opening, record: null };
    expect(openOf(fresh)).toMatchObject({ as: 'mira', record: null });
  });
});
