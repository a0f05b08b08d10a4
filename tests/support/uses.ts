/** Forms, scripts and steps at random: whatever people and behaviours come up with. */
import fc from 'fast-check';
import type { Field, Form } from '../../src/core/form/definition';
import type { TimedStep } from '../../src/core/session/step';
import { choice, choices, formWith, number, page, rows, section, text, yesNo } from './forms';

const hidden = fc.constantFrom(
  {},
  { hidden: true },
  { required: true },
  { locked: true },
  { whenHidden: 'omit' },
  { whenHidden: 'clear', default: undefined },
);

const anyField = (name: string) =>
  fc
    .tuple(fc.constantFrom('text', 'number', 'yes_no', 'choice', 'choices'), hidden)
    .map(([kind, more]): Field => {
      switch (kind) {
        case 'text':
          return text(name, { maxLength: 5, ...more });
        case 'number':
          return number(name, { min: 0, ...more });
        case 'yes_no':
          return yesNo(name, more);
        case 'choice':
          return choice(name, ['one', 'two', 'three'], more);
        default:
          return choices(name, ['one', 'two', 'three'], more);
      }
    });

export const anyForm: fc.Arbitrary<Form> = fc
  .tuple(
    anyField('a'),
    anyField('b'),
    anyField('c'),
    fc.tuple(anyField('x'), anyField('y'), fc.constant(number('n', { min: 0 }))),
    hidden,
  )
  .map(([a, b, c, cells, more]) => ({
    ...formWith([]),
    pages: [
      page('first', [
        section('one', [a, b]),
        section('two', [c], { ...('hidden' in more ? more : {}) }),
      ]),
      page('second', [section('three', [rows('list', cells), number('total')])]),
    ],
  }));

/** Sources that any of those forms can run; some fail, some wait, some fight over the same aspects. */
export const SCRIPTS = [
  'keep("b follows a", () => { fields.b.shown = fields.a.value !== null; fields.b.required = fields.a.value !== null; });',
  'keep("two follows b", () => { sections.two.shown = fields.b.value === null; });',
  'keep("b is locked", () => { fields.b.locked = fields.c.value !== null; fields.b.shown = true; });',
  'keep.each(fields.list, "y follows x", (row) => { row.fields.y.shown = row.fields.x.value !== null; row.fields.y.hint = row.fields.n.value === null ? null : String(row.fields.n.value); });',
  'keep.each(fields.list, "problems", (row) => { row.fields.n.problem = (row.fields.n.value ?? 0) > 5 ? "too many" : null; row.fields.n.locked = row.fields.n.value === 3; });',
  'keep("total", () => { fields.total.value = fields.list.sum("n"); });',
  'keep("rows hidden", () => { fields.list.shown = fields.c.value === null; });',
  'on.change(fields.a, ({ by }) => { if (by === "person") fields.total.hint = "a changed"; if (fields.list.count > 2) fields.list.remove(fields.list.rows[0]!); });',
  'on.change(fields.list.each.n, ({ row, value }) => { if (value === 4) throw new Error("four"); row.fields.n.hint = `set to ${value}`; });',
  'on.change(fields.b, () => { fields.list.add({ n: 1 }); fields.total.locked = true; throw new Error("all of it goes"); });',
  'on.change(fields.c, async () => { fields.a.hint = "waiting"; await after(50); fields.a.hint = null; fields.list.add({ n: 2 }); });',
  'on.change(fields.total, ({ value }) => { if (value === 6) fields.list.rows[0]!.fields.n.value = 0; });',
  'on.rowAdded(fields.list, ({ row }) => { row.fields.n.locked = false; });',
];

const anyValue = fc.constantFrom<unknown>(
  null,
  'ab',
  'one',
  'two',
  0,
  3,
  4,
  6,
  true,
  false,
  ['one'],
  ['three', 'one'],
  [],
);
const place = fc.nat(3);
export const anyStep: fc.Arbitrary<TimedStep> = fc.oneof(
  {
    weight: 5,
    arbitrary: fc
      .tuple(fc.constantFrom('a', 'b', 'c', 'total'), anyValue)
      .map(([set, to]) => ({ set, to: to as never })),
  },
  {
    weight: 5,
    arbitrary: fc
      .tuple(place, fc.constantFrom('x', 'y', 'n'), anyValue)
      .map(([i, cell, to]) => ({ set: `list[${i}].${cell}`, to: to as never })),
  },
  { weight: 3, arbitrary: fc.constant<TimedStep>({ addRow: 'list' }) },
  { weight: 1, arbitrary: place.map((i): TimedStep => ({ removeRow: `list[${i}]` })) },
  {
    weight: 1,
    arbitrary: fc.tuple(place, place).map(([i, to]): TimedStep => ({ moveRow: `list[${i}]`, to })),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom<TimedStep>(
      { turnTo: 'second' },
      { turnTo: 'first' },
      { wait: 30 },
      { wait: 80 },
      { submit: true },
    ),
  },
);

export const anyUse = fc.record({
  form: anyForm,
  scripts: fc
    .subarray(SCRIPTS, { minLength: 1 })
    .map((chosen): Record<string, string> =>
      Object.fromEntries(chosen.map((source, i) => [`${10 + i}-s`, source])),
    ),
  steps: fc.array(anyStep, { minLength: 1, maxLength: 18 }),
});
