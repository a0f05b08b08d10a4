/** What scripts and definitions may hold that JavaScript has a meaning of its own for, and texts of any length. */
import { SAID_CHARACTERS } from '../limits';
import { beforeAll, describe, expect, test } from 'vitest';
import { choice, formWith, number, text } from '../../../tests/support/forms';
import { bootMachine, both } from '../../../tests/support/hosts';
import { FormSchema } from '../form/definition';

beforeAll(bootMachine);

/** Names of every object, which a table of names must not take for its own. */
const OWN = [
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  'valueOf',
  'isPrototypeOf',
  '__defineGetter__',
];

describe('names that are JavaScript’s own', () => {
  test.each(OWN)('%s names no field, and the definition says why', (name) => {
    const form = {
      name: 'f',
      title: 'F',
      pages: [
        {
          name: 'p',
          title: 'P',
          sections: [{ name: 's', title: 'S', fields: [{ name, label: 'X', kind: 'text' }] }],
        },
      ],
    };
    expect(FormSchema.safeParse(form).error!.issues[0]!.message).toContain('a technical name is');
  });

  test.each(OWN)(
    '%s is a key like any other: of options, of rows of tables, of records, people, roles and launch parameters',
    (key) => {
      const form = formWith([
        choice('a', [key, 'plain']),
        { name: 'ref', label: 'Ref', kind: 'reference', table: 't' } as never,
        text('note'),
      ]);
      const table = {
        name: 't',
        title: 'T',
        key: 'id',
        label: 'label',
        columns: [
          { name: 'id', kind: 'text' as const },
          { name: 'label', kind: 'text' as const },
        ],
        rows: [
          { id: key, label: 'Found' },
          { id: 'x', label: 'X' },
        ],
      };
      const use = both({
        form,
        tables: [table],
        record: { id: key, values: { a: 'plain', ref: null, note: null } },
        roles: [key],
        launch: Object.fromEntries([[key === '__proto__' ? 'proto' : key, 'handed']]),
        scripts: {
          a: `on.change(fields.a, ({ value }) => {
          fields.note.value = [value, tables.t.find(${JSON.stringify(key)})?.label, form.person.roles[0], form.launch[${JSON.stringify(key === '__proto__' ? 'proto' : key)}]].join(" ");
          fields.a.options = [${JSON.stringify(key)}];
        });`,
        },
      });
      expect(use.do({ set: 'a', to: key }).refused).toBeNull();
      expect(use.value('note')).toBe(`${key} Found ${key} handed`);
      expect(use.do({ set: 'a', to: 'plain' }).refused).toContain('is not among the options');
      expect(use.do({ set: 'ref', to: key }).refused).toBeNull();
      const saved = use.do({ submit: true }).submit!;
      expect([saved.saved, saved.id, saved.values.a, saved.values.ref]).toEqual([
        true,
        key,
        key,
        key,
      ]);
    },
  );

  test('nobody is offered a key that only JavaScript knows', () => {
    const use = both({
      form: formWith([choice('a', ['x']), text('note')]),
      scripts: {
        a: 'on.change(fields.note, () => { log(tables, (form.launch as any).constructor, (form.launch as any).toString); });',
      },
    });
    for (const key of OWN)
      expect(use.do({ set: 'a', to: key }).refused).toContain('takes one of the keys');
    for (const name of OWN)
      expect(use.do({ set: name, to: 1 }).refused).toContain('there is no field');
    use.do({ set: 'note', to: 'x' });
    expect(JSON.stringify(use.tape)).not.toContain('native code');
  });
});

test.each([
  [
    'thrown',
    'throw new Error("x".repeat(100000));',
    (use: ReturnType<typeof both>) => use.do({ set: 'a', to: 1 }).errors[0]!.says,
  ],
  [
    'said to a person',
    'form.message("😀".repeat(50000));',
    (use: ReturnType<typeof both>) => use.do({ set: 'a', to: 1 }).messages[0]!.text,
  ],
])('a text that is %s is cut, and never in the middle of a character', (_how, code, says) => {
  const use = both({
    form: formWith([number('a')]),
    scripts: { a: `on.change(fields.a, () => { ${code} });` },
  });
  const said = says(use);
  expect([
    said.length <= SAID_CHARACTERS + 40,
    said.endsWith('…') || said.includes('…'),
    said.isWellFormed(),
  ]).toEqual([true, true, true]);
});

test('calls that wait are limited, so that a storm of them ends its run and nothing else', () => {
  const use = both({
    form: formWith([number('a'), number('b')]),
    scripts: {
      a: 'on.change(fields.a, async () => {\n  for (let i = 0; i < 5000; i++) after(0);\n});',
      b: 'on.change(fields.a, ({ value }) => { fields.b.value = value; });',
    },
  });
  const answer = use.do({ set: 'a', to: 3 });
  expect(answer.errors).toMatchObject([
    {
      behaviour: 'a',
      line: 2,
      code: 'wrong_use',
      says: 'after() was called while 1000 calls wait already.',
    },
  ]);
  expect([use.value('b'), answer.waiting]).toEqual([3, []]);
});

describe('thousands of handlers', () => {
  const seen = 'fields.seen.value = (fields.seen.value ?? "")';
  const opened = (fails: boolean) =>
    both({
      form: formWith([number('a'), number('b'), text('seen')]),
      scripts: {
        a: `for (let i = 0; i < 3000; i++) on.change(fields.a, () => { if (i % 1000 === 0) ${seen} + i + " "; });
const unties = ["x", "y", "z"].map((name) => on.change(fields.b, () => { ${seen} + name; }));
on.load(() => {
  unties[1]!();
  for (let i = 0; i < 2000; i++) on.change(fields.b, () => { if (i === 0) ${seen} + "new"; });
  ${fails ? 'throw new Error("taken back");' : ''}
});`,
      },
    });

  test('run in their order, those tied at the top level before those tied while loading', () => {
    const use = opened(false);
    use.do({ set: 'a', to: 1 });
    expect(use.value('seen')).toBe('0 1000 2000 ');
    use.do({ set: 'b', to: 1 });
    expect(use.value('seen')).toBe('0 1000 2000 xznew');
  });

  test('tied and untied by a run that is taken back, leave those there were, in their order', () => {
    const use = opened(true);
    use.do({ set: 'b', to: 1 });
    expect(use.value('seen')).toBe('xyz');
  });
});
