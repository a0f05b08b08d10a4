/** Editing structure: each edit and its undoing, what uses a part, and renaming everywhere. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  button,
  choice,
  formWith,
  number,
  page,
  rows,
  section,
  text,
  track,
} from '../../../tests/support/forms';
import type { Form } from '../form/definition';
import { definitionErrors } from '../form/integrity';
import { libs } from '../language/generated/libs';
import type { Expectation, Scenario } from '../scenario/definition';
import { edited, nameFor, namesTaken, newField, placeOf, InvalidEdit, type Edit } from './edit';
import { advance, begin, redo, undo } from './history';
import { renameInValues } from './in-scenario';
import { planRename } from './rename';
import { usesOf, usesOfKey, type Reach } from './uses';

const form: Form = {
  name: 'visit',
  title: 'Visit',
  pages: [
    page('first', [
      section('stay', [text('note'), number('length')]),
      section('goods', [rows('cargo', [text('what'), number('weight')])]),
    ]),
    page('second', [section('rest', [choice('pilot', ['own', 'none'])])]),
  ],
  buttons: [button('go', { section: 'stay' })],
  tracks: [track('course', ['asked', 'done'])],
};

const names = (of: Form) => of.pages.map((p) => p.sections.map((s) => s.fields.map((f) => f.name)));

describe('an edit', () => {
  test('adds a part where it is told, and leaves the former definition as it was', () => {
    const before = JSON.stringify(form);
    const next = edited(form, {
      do: 'add',
      sort: 'field',
      into: 'stay',
      at: 1,
      definition: newField('date', 'arrival', 'Arrival', null),
    });
    expect(names(next)).toEqual([[['note', 'arrival', 'length'], ['cargo']], [['pilot']]]);
    expect(JSON.stringify(form)).toBe(before);
  });

  test('moves a field between sections, a section between pages, a cell within its row', () => {
    expect(names(edited(form, { do: 'move', part: 'note', into: 'rest', at: 0 }))).toEqual([
      [['length'], ['cargo']],
      [['note', 'pilot']],
    ]);
    expect(names(edited(form, { do: 'move', part: 'goods', into: 'second', at: 0 }))).toEqual([
      [['note', 'length']],
      [['cargo'], ['pilot']],
    ]);
    const [cargo] = edited(form, { do: 'move', part: 'cargo.weight', into: 'cargo', at: 0 })
      .pages[0]!.sections[1]!.fields;
    expect(cargo!.kind === 'rows' && cargo!.fields.map((cell) => cell.name)).toEqual([
      'weight',
      'what',
    ]);
  });

  test('changes what is said of a part, and takes out what is undefined', () => {
    const next = edited(
      edited(form, { do: 'change', part: 'note', to: { required: true, help: 'x' } }),
      { do: 'change', part: 'note', to: { help: undefined } },
    );
    expect(placeOf(next, 'note')!.definition).toEqual({ ...text('note'), required: true });
  });

  test('lists of records and what is said of the form are edited too', () => {
    const list = {
      name: 'calls',
      title: 'Calls',
      form: 'call',
      field: 'vessel',
      launch: 'vessel',
      columns: ['length'],
    };
    const next = edited(
      edited(form, { do: 'add', sort: 'list', into: null, at: 0, definition: list }),
      { do: 'changeForm', title: 'Visits', settings: { checkPages: false } },
    );
    expect([next.children, next.title, next.settings]).toEqual([
      [list],
      'Visits',
      { checkPages: false },
    ]);
    expect(
      edited(edited(next, { do: 'remove', part: 'calls' }), {
        do: 'changeForm',
        title: 'Visit',
        settings: {},
      }),
    ).toEqual(form);
  });

  test('removing a section lets its buttons stand at the foot of the form', () => {
    expect(edited(form, { do: 'remove', part: 'stay' }).buttons).toEqual([button('go')]);
  });

  test.each<[Edit, string]>([
    [{ do: 'remove', part: 'rest' }, 'A page has at least one section.'],
    [{ do: 'remove', part: 'nowhere' }, 'The form has no part "nowhere".'],
    [
      { do: 'move', part: 'note', into: 'second', at: 0 },
      'There is nothing called "second" that a field could stand in.',
    ],
    [
      { do: 'add', sort: 'cell', into: 'cargo', at: 0, definition: rows('inner', [text('x')]) },
      'Rows do not nest',
    ],
    [{ do: 'change', part: 'note', to: { name: 'remark' } }, 'changed by renaming'],
  ])('that cannot be done says why: %j', (edit, says) => {
    expect(() => edited(form, edit)).toThrow(InvalidEdit);
    expect(() => edited(form, edit)).toThrow(says);
  });

  test('names are made from labels and never taken twice', () => {
    expect([
      nameFor('Größe über alles', new Set()),
      nameFor('Note', namesTaken(form, { sort: 'field', into: 'stay' })),
      nameFor('Note', namesTaken(form, { sort: 'cell', into: 'cargo' })),
      nameFor('—', new Set()),
    ]).toEqual(['gro_e_uber_alles', 'note_2', 'note', 'part']);
  });
});

/** Any edit, of parts that may be there or not. */
const anyEdit = fc.oneof(
  fc.record({
    do: fc.constant('add' as const),
    sort: fc.constant('field' as const),
    into: fc.constantFrom('stay', 'goods', 'rest'),
    at: fc.nat(5),
    definition: fc.nat(30).map((n) => text(`new_${n}`)),
  }),
  fc.record({
    do: fc.constant('remove' as const),
    part: fc.constantFrom(
      'note',
      'length',
      'cargo',
      'cargo.what',
      'stay',
      'second',
      'go',
      'course',
    ),
  }),
  fc.record({
    do: fc.constant('move' as const),
    part: fc.constantFrom('note', 'length', 'cargo', 'pilot'),
    into: fc.constantFrom('stay', 'goods', 'rest'),
    at: fc.nat(5),
  }),
  fc.record({
    do: fc.constant('change' as const),
    part: fc.constantFrom('note', 'length', 'cargo.weight', 'goods'),
    to: fc.constantFrom({ hidden: true }, { locked: true }, { help: 'h' }),
  }),
);

test('whatever is edited, undoing all of it restores the same definition, and doing it again the edited one', () => {
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
      let history = begin(form);
      for (const edit of edits) {
        try {
          const next = edited(history.present, edit as Edit);
          if (definitionErrors(next, []).length === 0) history = advance(history, next);
        } catch (caught) {
          if (!(caught instanceof InvalidEdit)) throw caught;
        }
      }
      const last = history.present;
      const { length } = history.past;
      for (let i = 0; i < length; i++) history = undo(history);
      expect(history.present).toEqual(form);
      for (let i = 0; i < length; i++) history = redo(history);
      expect(history.present).toEqual(last);
      expect([undo(begin(form)).present, redo(begin(form)).present]).toEqual([form, form]);
    }),
    { seed: 20310502, numRuns: 200 },
  );
});

const scenario: Scenario = {
  title: 'A scenario',
  open: { as: 'mira' },
  steps: [
    { set: 'length', to: 3 },
    { addRow: 'cargo', with: { weight: 1 } },
    { set: 'cargo[0].weight', to: 2 },
    {
      expect: {
        length: { value: 3 },
        'cargo[0].weight': { hint: null },
        'cargo[0]': { cells: { weight: 2 } },
        '@submit': {
          values: { length: 3, cargo: [] },
          stoppedBy: 'length',
          without: ['cargo[0].weight'],
        },
        '@page': 'first',
      } as Expectation,
    },
  ],
};
const child: Form = { ...formWith([text('vessel'), number('length')]), name: 'call' };
const parent: Form = {
  ...form,
  children: [
    {
      name: 'calls',
      title: 'Calls',
      form: 'call',
      field: 'vessel',
      launch: 'vessel',
      columns: ['length'],
    },
  ],
};
const reach: Reach = {
  shared: [],
  forms: [
    {
      form: parent,
      behaviours: [
        {
          name: '10-a.ts',
          text: '/** Lengths: and so on. */\nkeep(() => {\n  const { length } = fields;\n  fields.note.value = String(length.value);\n});\nkeep.each(fields.cargo, (row) => {\n  row.fields.weight.hint = String(row.values.weight);\n});\n',
        },
        {
          name: '20-b.ts',
          text: 'on.submit((event) => {\n  const length = "length".length;\n  if (fields.length.value === length) event.stop("no", fields.length);\n  log(fields.cargo.sum("weight"), sections.stay.shown);\n});\n',
        },
        {
          name: '30-c.js',
          text: 'on.click(buttons.go, () => pages.first.open());\non.pageChange((event) => { if (event.to === "first") log("first"); });\n',
        },
      ],
      scenarios: [{ name: 'one', scenario }],
    },
    {
      form: child,
      behaviours: [
        {
          name: '10-from.ts',
          text: 'on.load(() => { fields.length.value = parent?.get("length") as number; });\non.saved(() => parent!.set("note", "x"));\n',
        },
      ],
      scenarios: [],
    },
  ],
  tables: [],
  services: [],
  roles: [{ key: 'clerk', label: 'Clerk' }],
  libs,
};
const rewritten = (part: string, to: string) =>
  Object.fromEntries(
    planRename(reach, 'visit', part, to).behaviours.map(({ form: of, name, text: code }) => [
      `${of}/${name}`,
      code,
    ]),
  );

describe('renaming', () => {
  test('follows what a name means: accesses, destructuring, a child’s questions to its parent, and no mere texts', () => {
    expect(rewritten('length', 'loa')).toEqual({
      'visit/10-a.ts': reach.forms[0]!.behaviours[0]!.text.replace(
        'const { length }',
        'const { loa: length }',
      ),
      'visit/20-b.ts': reach.forms[0]!.behaviours[1]!.text.replaceAll(
        'fields.length',
        'fields.loa',
      ),
      'call/10-from.ts': reach.forms[1]!.behaviours[0]!.text.replace('get("length")', 'get("loa")'),
    });
    expect(planRename(reach, 'visit', 'length', 'loa').mentions).toEqual([
      { form: 'visit', behaviour: '20-b.ts', line: 2, text: 'const length = "length".length;' },
    ]);
  });

  test('a cell is renamed as a part, as a value of its row and in sums', () => {
    const code = rewritten('cargo.weight', 'mass');
    expect(code['visit/10-a.ts']).toContain('row.fields.mass.hint = String(row.values.mass)');
    expect(code['visit/20-b.ts']).toContain('fields.cargo.sum("mass")');
  });

  test('sections, pages and buttons are renamed, with what refers to them in the form', () => {
    expect(rewritten('stay', 'visit_part')['visit/20-b.ts']).toContain('sections.visit_part.shown');
    expect(planRename(reach, 'visit', 'stay', 'visit_part').forms[0]!.buttons![0]!.section).toBe(
      'visit_part',
    );
    expect(rewritten('first', 'start')['visit/30-c.js']).toContain('pages.start.open()');
    expect(planRename(reach, 'visit', 'first', 'start').mentions.map(({ line }) => line)).toEqual([
      2, 2,
    ]);
    expect(rewritten('go', 'begin')['visit/30-c.js']).toContain('buttons.begin');
  });

  test('scenarios name it again, in steps and in expectations', () => {
    expect(planRename(reach, 'visit', 'length', 'loa').scenarios[0]!.scenario.steps).toEqual([
      { set: 'loa', to: 3 },
      { addRow: 'cargo', with: { weight: 1 } },
      { set: 'cargo[0].weight', to: 2 },
      {
        expect: {
          loa: { value: 3 },
          'cargo[0].weight': { hint: null },
          'cargo[0]': { cells: { weight: 2 } },
          '@submit': {
            values: { loa: 3, cargo: [] },
            stoppedBy: 'loa',
            without: ['cargo[0].weight'],
          },
          '@page': 'first',
        },
      },
    ]);
    expect(
      planRename(reach, 'visit', 'cargo.weight', 'mass').scenarios[0]!.scenario.steps.slice(1),
    ).toEqual([
      { addRow: 'cargo', with: { mass: 1 } },
      { set: 'cargo[0].mass', to: 2 },
      {
        expect: {
          length: { value: 3 },
          'cargo[0].mass': { hint: null },
          'cargo[0]': { cells: { mass: 2 } },
          '@submit': {
            values: { length: 3, cargo: [] },
            stoppedBy: 'length',
            without: ['cargo[0].mass'],
          },
          '@page': 'first',
        },
      },
    ]);
    expect(
      planRename(reach, 'visit', 'first', 'start').scenarios[0]!.scenario.steps[3],
    ).toMatchObject({ expect: { '@page': 'start' } });
  });

  test('records hold their values under the new name', () => {
    const values = { length: 3, cargo: [{ what: 'salt', weight: 1 }] };
    expect(renameInValues(values, 'length', 'loa', 'field')).toEqual({
      loa: 3,
      cargo: values.cargo,
    });
    expect(renameInValues(values, 'cargo.weight', 'mass', 'cell')).toEqual({
      length: 3,
      cargo: [{ what: 'salt', mass: 1 }],
    });
  });

  test('lists of other forms follow', () => {
    expect(
      planRename(reach, 'call', 'vessel', 'ship').forms.find((one) => one.name === 'visit')!
        .children![0],
    ).toMatchObject({ field: 'ship', columns: ['length'] });
  });

  test.each([
    ['note', 'length', 'already names a part'],
    ['note', 'Note', 'lower-case letters'],
    ['nope', 'x', 'has no part'],
  ])('%s to %s is refused: %s', (part, to, says) => {
    expect(() => planRename(reach, 'visit', part, to)).toThrow(says);
  });
});

describe('what uses a part', () => {
  test('behaviours by line, scenarios by step, lists of other forms', () => {
    const uses = usesOf(reach, 'visit', 'length');
    expect(uses.code.map(({ form: of, behaviour, lines }) => [of, behaviour, lines])).toEqual([
      ['visit', '10-a.ts', [3]],
      ['visit', '20-b.ts', [3]],
      ['call', '10-from.ts', [1]],
    ]);
    expect(uses.scenarios).toEqual([
      { form: 'visit', name: 'one', title: 'A scenario', steps: [0, 3] },
    ]);
    expect(usesOf(reach, 'call', 'length').lists).toEqual([{ form: 'visit', list: 'Calls' }]);
    expect(usesOf(reach, 'visit', 'pilot').code).toEqual([]);
  });

  test('an option key: texts that equal it, and scenarios that set or expect it for that field', () => {
    const with_ = {
      ...reach,
      forms: [
        {
          ...reach.forms[0]!,
          behaviours: [
            { name: 'a.ts', text: 'keep(() => { if (fields.pilot.value === "own") log(1); });' },
          ],
          scenarios: [
            {
              name: 's',
              scenario: {
                title: 'S',
                open: { as: 'mira' },
                steps: [{ set: 'pilot', to: 'own' }],
              } as Scenario,
            },
          ],
        },
      ],
    };
    expect(usesOfKey(with_, 'visit', 'pilot', 'own')).toEqual({
      mentions: [
        {
          form: 'visit',
          behaviour: 'a.ts',
          line: 1,
          text: 'keep(() => { if (fields.pilot.value === "own") log(1); });',
        },
      ],
      scenarios: ['S'],
    });
    expect(usesOfKey(with_, 'visit', 'pilot', 'none')).toEqual({ mentions: [], scenarios: [] });
  });
});
