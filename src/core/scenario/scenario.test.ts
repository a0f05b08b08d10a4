import { beforeAll, describe, expect, test } from 'vitest';
import { bootMachine } from '../../../tests/support/hosts';
import { formWith, number, page, rows, section, text } from '../../../tests/support/forms';
import { compile } from '../language/compile';
import { materialOf } from '../language/material';
import { startModule } from '../sandbox/quickjs';
import { Sandbox } from '../sandbox/sandbox';
import type { Step } from '../session/step';
import { ScenarioSchema, type Scenario } from './definition';
import { recordScenario } from './record';
import { unknownNames } from './naming';
import { runScenario, type Player } from './run-scenario';

const form = {
  ...formWith([number('a'), number('b'), text('note', { locked: true })]),
  pages: [
    page('main', [section('stay', [number('a'), number('b'), text('note', { locked: true })])]),
  ],
};
const cast = { people: [{ key: 'mira', name: 'Mira Oldane', roles: ['clerk'] }], records: [] };
const SOURCE =
  'keep("double", () => { fields.b.value = fields.a.value === null ? null : fields.a.value * 2; });\non.change(fields.a, ({ value }) => { if (value === 9) throw new Error("nine"); if (value === 3) form.message("three"); });';

let play: Player;
beforeAll(async () => {
  await bootMachine();
  const sandbox = new Sandbox(await startModule(), { temporal: false });
  sandbox.load({
    form,
    tables: [],
    services: [],
    answering: [],
    modules: [],
    scripts: [compile({ name: 'a.ts', text: SOURCE }, 'untraced')],
    traced: false,
  });
  play = async (opening, steps) => [
    sandbox.open(opening),
    ...steps.map((step) => sandbox.step(step)),
  ];
});

/** Steps as they stand in a file: read by the schema. */
const run = (steps: object[]) =>
  runScenario(
    ScenarioSchema.parse({ title: 't', open: { as: 'mira' }, steps }),
    form,
    { tables: [] },
    cast,
    play,
  );
const missesOf = async (steps: object[]) =>
  (await run(steps)).misses.map(({ after, says }) => [after, says]);

describe('a scenario', () => {
  test('passes when all is as expected', async () => {
    expect(
      await missesOf([
        { set: 'a', to: 3 },
        { expect: { b: { value: 6 }, '@messages': ['three'] } },
        { submit: true },
        { expect: { '@submit': { saved: true, values: { b: 6 } }, '@page': 'main' } },
      ]),
    ).toEqual([]);
  });

  test('says at which step what is otherwise', async () => {
    expect(
      await missesOf([{ set: 'a', to: 3 }, { expect: { b: { value: 7, required: true }, c: {} } }]),
    ).toEqual([
      [1, 'b.value is 6, expected 7'],
      [1, 'b.required is no (false), expected yes (true)'],
      [1, 'there is no part "c"'],
    ]);
  });

  test('fails on an error that no expect names, and passes when one does', async () => {
    expect(await missesOf([{ set: 'a', to: 9 }])).toEqual([[1, 'a, line 2: threw: nine']]);
    expect(await missesOf([{ set: 'a', to: 9 }, { expect: { b: { value: 18 } } }])).toEqual([
      [1, 'a, line 2: threw: nine'],
    ]);
    expect(
      await missesOf([
        { set: 'a', to: 9 },
        { expect: { '@errors': [{ behaviour: 'a', line: 2, says: 'nine' }] } },
      ]),
    ).toEqual([]);
    expect(
      await missesOf([{ set: 'a', to: 1 }, { expect: { '@errors': [{ says: 'nine' }] } }]),
    ).toEqual([[1, 'an error was expected and did not come: {"says":"nine"}']]);
  });

  test('fails on a refused step that no expect names, and the run goes on', async () => {
    expect(
      await missesOf([
        { set: 'note', to: 'x' },
        { set: 'a', to: 1 },
        { expect: { b: { value: 3 } } },
      ]),
    ).toEqual([
      [2, 'step 1 was refused: Note is locked'],
      [2, 'b.value is 2, expected 3'],
    ]);
    expect(
      await missesOf([
        { set: 'note', to: 'x' },
        { expect: { '@refused': [{ step: 1, why: 'locked' }] } },
      ]),
    ).toEqual([]);
  });
});

test('what was clicked becomes a scenario with expectations on what it changed, and it passes', async () => {
  const steps: Step[] = [
    { set: 'a', to: 3 },
    { set: 'a', to: 9 },
    { set: 'note', to: 'x' },
    { submit: true },
  ];
  const opening = {
    person: { ...cast.people[0]! },
    record: null,
    launch: {},
    clock: 0,
    seed: 1,
    newId: 'new',
  };
  const scenario: Scenario = recordScenario(
    'kept',
    { as: 'mira' },
    form,
    steps,
    await play(opening, steps),
  );
  expect(scenario.steps.slice(0, 2)).toEqual([
    { set: 'a', to: 3 },
    {
      expect: {
        b: { value: 6 },
        '@messages': [{ text: 'three', tone: 'info' }],
        '@nothingElse': true,
      },
    },
  ]);
  expect((await run(scenario.steps)).misses).toEqual([]);
});

test('what was clicked among rows becomes a scenario too, with rows named by their place, and it passes', async () => {
  const rowsForm = formWith([
    rows('list', [number('n'), text('t', { hidden: true })]),
    number('total'),
  ]);
  const sandbox = new Sandbox(await startModule(), { temporal: false });
  sandbox.load(
    materialOf(
      rowsForm,
      { tables: [], services: [] },
      [
        {
          name: 'a.ts',
          text: 'keep.each(fields.list, "t", (row) => { row.fields.t.shown = (row.fields.n.value ?? 0) > 1; });\nkeep("total", () => { fields.total.value = fields.list.sum("n"); });\non.change(fields.total, ({ value }) => { if (value === 5) fields.list.add({ n: 0 }); });',
        },
      ],
      'untraced',
    ),
  );
  const playRows: Player = async (opening, steps) => [
    sandbox.open(opening),
    ...steps.map((step) => sandbox.step(step)),
  ];
  const steps: Step[] = [
    { addRow: 'list' },
    { addRow: 'list' },
    { set: 'list[1].n', to: 2 },
    { moveRow: 'list[1]', to: 0 },
    { set: 'list[1].n', to: 3 },
    { removeRow: 'list[0]' },
  ];
  const opening = {
    person: { ...cast.people[0]! },
    record: null,
    launch: {},
    clock: 0,
    seed: 1,
    newId: 'new',
  };
  const kept = recordScenario(
    'rows',
    { as: 'mira' },
    rowsForm,
    steps,
    await playRows(opening, steps),
  );
  expect(kept.steps.slice(2, 6)).toEqual([
    { set: 'list[1].n', to: 2 },
    {
      expect: { 'list[1].t': { shown: true }, total: { value: 2 }, '@nothingElse': true },
    },
    { moveRow: 'list[1]', to: 0 },
    { set: 'list[1].n', to: 3 },
  ]);
  const result = await runScenario(
    ScenarioSchema.parse(kept),
    rowsForm,
    { tables: [] },
    cast,
    playRows,
  );
  expect(result.misses).toEqual([]);
  // And it is no empty promise: without the rule it fails.
  const wrong = await runScenario(
    ScenarioSchema.parse({
      ...kept,
      steps: [
        ...kept.steps,
        {
          expect: { list: { count: 9 }, 'list[0]': { cells: { n: 9 } }, 'list[7].n': { value: 1 } },
        },
      ],
    }),
    rowsForm,
    { tables: [] },
    cast,
    playRows,
  );
  expect(wrong.misses.map(({ says }) => says)).toEqual([
    'list.count is 2, expected 9',
    'list[0].n is 3, expected 9',
    'there is no part "list[7].n"',
  ]);
});

test('names that the form does not have are found before anything runs', () => {
  expect(
    unknownNames(
      { title: 't', open: { as: 'mira' }, steps: [{ set: 'a', to: 1 }, { expect: { bb: {} } }] },
      form,
    ),
  ).toEqual([{ path: ['steps', 1, 'expect', 'bb'], says: 'the form has no part "bb"' }]);
});

test('one that cannot be opened fails, and says what is not there', async () => {
  const opened = (open: object) =>
    runScenario(
      ScenarioSchema.parse({ title: 't', open, steps: [] }),
      form,
      { tables: [] },
      cast,
      play,
    );
  expect(await opened({ as: 'nobody' })).toEqual({
    title: 't',
    passed: false,
    misses: [
      {
        entry: 0,
        after: 0,
        at: null,
        part: '@open',
        aspect: null,
        says: 'cannot be opened: there is no person "nobody"',
      },
    ],
    steps: 0,
  });
  expect(
    (await opened({ as: 'mira', parent: { form: 'ship', record: '1' } })).misses,
  ).toMatchObject([{ says: 'cannot be opened: there is no form "ship"' }]);
});
