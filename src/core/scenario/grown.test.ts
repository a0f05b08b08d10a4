/** What a scenario can be besides a list of steps: nothing else changed, a shared beginning, a table, a grid. */
import { beforeAll, describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text, yesNo } from '../../../tests/support/forms';
import { BEGINNINGS } from '../limits';
import { materialOf } from '../language/material';
import { startModule } from '../sandbox/quickjs';
import { Sandbox } from '../sandbox/sandbox';
import { rekeyInScenario, renameInScenario } from '../structure/in-scenario';
import { ScenarioSchema, type Scenario } from './definition';
import { combinationsOf, folded, outcomeChanges, playGrid, unfolded } from './grid';
import { unknownNames } from './naming';
import { runScenario, sessionAt, type Player } from './run-scenario';

const form = {
  ...formWith([
    choice('kind', ['bulk', 'oil', 'tug']),
    yesNo('pilot'),
    number('dues'),
    text('note', { hidden: true }),
    text('reason'),
    rows('cargo', [number('weight'), text('mark', { hidden: true })]),
  ]),
  launch: [{ name: 'quay', kind: 'text' as const, label: 'Quay' }],
};
const cast = {
  people: [
    { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
    { key: 'per', name: 'Per Aske', roles: ['master'] },
  ],
  records: [{ id: 'r1', values: { kind: 'oil' } }],
};
const SOUND = `
keep('note', () => { fields.note.shown = fields.kind.value === 'oil'; });
keep('reason', () => { fields.reason.required = fields.kind.value === 'oil' && fields.pilot.value !== true; });
on.change(fields.kind, ({ value }) => {
  fields.dues.value = value === 'oil' ? 200 : value === null ? null : 100;
  if (value === 'tug') form.message('Tugs pay less.');
});
on.load(() => { if (form.launch.quay === 'north') fields.reason.locked = true; });
keep.each(fields.cargo, 'mark', (row) => { row.fields.mark.shown = (row.fields.weight.value ?? 0) > 9; });
`;

let machine: Sandbox;
const withScript = (source: string): Player => {
  machine.load(
    materialOf(form, { tables: [], services: [] }, [{ name: 'a.ts', text: source }], 'untraced'),
  );
  return async (opening, steps) => [
    machine.open(opening),
    ...steps.map((step) => machine.step(step)),
  ];
};
beforeAll(async () => {
  machine = new Sandbox(await startModule(), { temporal: false });
});

const run = (
  scenario: object,
  source = SOUND,
  scenarios: { name: string; scenario: Scenario }[] = [],
) =>
  runScenario(
    ScenarioSchema.parse({ title: 't', ...scenario }),
    form,
    { tables: [] },
    { ...cast, scenarios },
    withScript(source),
  );
const says = async (...given: Parameters<typeof run>) =>
  (await run(...given)).misses.map((miss) => miss.says);

describe('nothing else changed', () => {
  const scenario = {
    open: { as: 'mira' },
    steps: [
      { set: 'kind', to: 'oil' },
      {
        expect: {
          note: { shown: true },
          reason: { required: true },
          dues: { value: 200 },
          '@nothingElse': true,
        },
      },
    ],
  };

  test('passes where only what is named changed; what was entered goes without saying', async () => {
    expect(await says(scenario)).toEqual([]);
  });

  test.each([
    [
      'on.change(fields.kind, () => { fields.pilot.locked = true; });',
      'pilot.locked changed from no (false) to yes (true)',
    ],
    [
      'on.change(fields.kind, () => { form.message("by the way"); });',
      '@messages has ["by the way"]',
    ],
    [
      'on.change(fields.kind, () => { fields.cargo.add({ weight: 3 }); });',
      'cargo.count changed from 0 to 1',
    ],
    [
      'on.change(fields.kind, () => { fields.note.hint = "why"; });',
      'note.hint changed from nothing to "why"',
    ],
  ])('fails on %s', async (more, what) => {
    expect(await says(scenario, SOUND + more)).toEqual([`${what}, and nothing else was to change`]);
  });

  test('is of what happened since it was last said, rows and cells too', async () => {
    const steps = [
      { addRow: 'cargo', with: { weight: 5 } },
      { expect: { '@nothingElse': true } },
      { set: 'cargo[0].weight', to: 12 },
      { expect: { '@nothingElse': true } },
    ];
    const { misses } = await run({ open: { as: 'mira' }, steps });
    expect(misses.map(({ says: what, after }) => [after, what])).toEqual([
      [
        2,
        'cargo[0].mark.shown changed from no (false) to yes (true), and nothing else was to change',
      ],
    ]);
    expect(misses[0]).toMatchObject({ expected: false, actual: true, entry: 3 });
  });

  test('a value that a script puts into the field that was set counts', async () => {
    const more = 'on.change(fields.kind, () => { fields.pilot.value = true; });';
    expect(await says({ ...scenario }, SOUND + more)).toHaveLength(2);
  });
});

test('services that are waited for can be expected', async () => {
  expect(
    await says({ open: { as: 'mira' }, steps: [{ expect: { '@waiting': ['tide.at'] } }] }),
  ).toEqual(['@waiting is [], expected ["tide.at"]']);
});

describe('a scenario that starts as another', () => {
  const first = ScenarioSchema.parse({
    title: 'oil',
    open: { as: 'mira', launch: { quay: 'north' } },
    steps: [{ set: 'kind', to: 'oil' }, { expect: { dues: { value: 1 } } }],
  });

  test('is opened as that one and does its steps, without what it expects', async () => {
    const scenario = {
      startsAs: 'oil',
      steps: [
        { set: 'pilot', to: true },
        { expect: { reason: { required: false, locked: true }, dues: { value: 200 } } },
      ],
    };
    expect(await says(scenario, SOUND, [{ name: 'oil', scenario: first }])).toEqual([]);
    expect(
      await says({ startsAs: 'oil', steps: [{ expect: { dues: { value: 7 } } }] }, SOUND, [
        { name: 'oil', scenario: first },
      ]),
    ).toEqual(['dues.value is 200, expected 7']);
  });

  test('says what it starts as where that is not there, is itself, or goes round', async () => {
    expect(await says({ startsAs: 'gone', steps: [] })).toEqual([
      'cannot be opened: there is no scenario "gone"',
    ]);
    const loop = (startsAs: string) => ScenarioSchema.parse({ title: 'l', startsAs, steps: [] });
    expect(
      await says({ startsAs: 'a', steps: [] }, SOUND, [
        { name: 'a', scenario: loop('b') },
        { name: 'b', scenario: loop('a') },
      ]),
    ).toEqual([`cannot be opened: at most ${BEGINNINGS} scenarios start as one another`]);
  });

  test('has either that or an opening of its own', () => {
    expect(ScenarioSchema.safeParse({ title: 't', steps: [] }).success).toBe(false);
    expect(
      ScenarioSchema.safeParse({ title: 't', startsAs: 'a', open: { as: 'mira' }, steps: [] })
        .success,
    ).toBe(false);
  });
});

describe('a table of cases', () => {
  const table = {
    open: { as: 'mira' },
    steps: [],
    cases: {
      inputs: ['@as', '@launch.quay', 'kind', 'pilot'],
      steps: [{ submit: true }],
      expected: ['dues', 'reason.required', 'reason.locked', '@submit.saved'],
      rows: [
        { inputs: ['mira', null, 'oil', true], expected: [200, false, false, true] },
        {
          title: 'no pilot',
          inputs: ['per', 'north', 'oil', null],
          expected: [200, true, true, false],
        },
        { inputs: ['per', 'north', 'bulk', null], expected: [90, false, true, true] },
      ],
    },
  };

  test('runs once for each row, and says of each how it came out', async () => {
    const { cases, misses, passed } = await run(table);
    expect(passed).toBe(false);
    expect(cases).toEqual([
      { title: '@as "mira", @launch.quay null, kind "oil", pilot true', passed: true },
      { title: 'no pilot', passed: true },
      { title: '@as "per", @launch.quay "north", kind "bulk", pilot null', passed: false },
    ]);
    expect(misses).toMatchObject([
      { at: 2, after: 2, part: 'dues', aspect: 'value', expected: 90, actual: 100 },
    ]);
  });

  test('opens at the row that failed', () => {
    const scenario = ScenarioSchema.parse({ title: 't', ...table });
    expect(sessionAt(scenario, 2, { form, cast })).toMatchObject({
      open: { as: 'per', launch: { quay: 'north' } },
      steps: [{ set: 'kind', to: 'bulk' }, { submit: true }],
    });
  });

  test('names are checked in its columns, and rows have a value for each', () => {
    const wrong = {
      title: 't',
      ...table,
      cases: {
        ...table.cases,
        inputs: ['kimd'],
        expected: ['dues.valu', 'cargo[0].weight.required'],
        rows: [],
      },
    };
    expect(unknownNames(ScenarioSchema.parse(wrong), form)).toEqual([
      { path: ['cases', 'inputs', 0], says: 'the form has no part "kimd"' },
      { path: ['cases', 'expected', 0], says: 'the form has no part "dues.valu"' },
    ]);
    const uneven = { ...table.cases, rows: [{ inputs: [1], expected: [] }] };
    expect(ScenarioSchema.safeParse({ title: 't', ...table, cases: uneven }).success).toBe(false);
  });
});

describe('an outcome grid', () => {
  const axes = [
    { input: 'kind', values: [null, 'bulk', 'oil', 'tug'] },
    { input: 'pilot', values: [null, true] },
    { input: '@record', values: [null, 'r1'] },
  ];
  const scenario = ScenarioSchema.parse({ title: 'grid', open: { as: 'mira' }, steps: [] });
  const ground = { form, source: { tables: [] }, cast };
  const accepted = async () => {
    const { tried } = combinationsOf(axes, null);
    return folded(
      await playGrid(scenario, { axes, parts: null }, tried, ground, withScript(SOUND)),
    );
  };
  const kept = async () =>
    ScenarioSchema.parse({ ...scenario, grid: { axes, accepted: await accepted() } });

  test('gives each combination its outcome, what is the same once, and each outcome once', async () => {
    const { base, outcomes, rows: combinations } = await accepted();
    expect(combinations).toHaveLength(16);
    expect(base.pilot).toMatchObject({ shown: true, locked: false, required: false });
    expect(base.note).toMatchObject({ locked: false });
    // With oil on a record of oil nothing changes, so no dues come from it.
    expect(outcomes.length).toBeGreaterThan(3);
    expect(outcomes.length).toBeLessThan(12);
    const oil = combinations.find(([places]) => String(places) === '2,0,0')!;
    expect(unfolded({ base, outcomes, rows: combinations }, oil[1])).toMatchObject({
      note: { shown: true },
      reason: { required: true },
      dues: { value: 200 },
    });
  });

  test('names combinations in which something does not hold, and no accepting hides them', async () => {
    const broken = `${SOUND}always('dues of tugs', () => fields.kind.value !== 'tug' || fields.dues.value === 50);`;
    const { tried } = combinationsOf(axes, null);
    const played = await playGrid(
      scenario,
      { axes, parts: null },
      tried,
      ground,
      withScript(broken),
    );
    const of = played.filter((one) => one.broken.length > 0);
    expect(of.map(({ places }) => places[0])).toEqual([3, 3, 3, 3]);
    expect(of[0]!.outcome['@form']!.broken).toEqual(['“dues of tugs” does not hold (a, line 10)']);
    for (const accepted of [folded(played), (await kept()).grid!.accepted]) {
      const { misses } = await run({ ...scenario, grid: { axes, accepted } }, broken);
      expect(misses).toHaveLength(4);
      expect(misses[0]).toMatchObject({
        part: '@always',
        says: 'with kind "tug", pilot null, @record null: “dues of tugs” does not hold (a, line 10)',
      });
    }
  });

  test('kept, it is a test that later differences fail', async () => {
    const test = await kept();
    expect(await says(test)).toEqual([]);
    const [first, ...more] = (
      await run(
        test,
        SOUND.replace("=== 'oil'; });\nkeep('reason'", "=== 'tug'; });\nkeep('reason'"),
      )
    ).misses;
    expect(more.length).toBe(7);
    expect(first).toMatchObject({
      part: 'note',
      aspect: 'shown',
      expected: true,
      actual: false,
      says: 'with kind "oil", pilot null, @record null: note.shown is false, accepted was true',
    });
    expect(sessionAt(test, first!.at, { form, cast })).toMatchObject({
      open: { as: 'mira', record: null },
      steps: [
        { set: 'kind', to: 'oil' },
        { set: 'pilot', to: null },
      ],
    });
  });

  test('says where a part is gone, and lets a new one be', () => {
    const before = { dues: { value: 1 }, gone: { shown: true } };
    expect(outcomeChanges(before, { dues: { value: 2 }, fresh: { shown: true } })).toEqual([
      { part: 'dues', aspect: 'value', before: 1, now: 2 },
      { part: 'gone', aspect: 'shown', before: true, now: null },
    ]);
  });

  test('is thinned above so many combinations, and says how', () => {
    const many = Array.from({ length: 12 }, (_, i) => ({ input: `f${i}`, values: [0, 1] }));
    const thinned = combinationsOf(many, null);
    expect([thinned.all, thinned.strength]).toEqual([4096, 2]);
    expect(thinned.tried.length).toBeLessThan(15);
    expect(combinationsOf(many.slice(0, 3), null)).toMatchObject({ all: 8, strength: null });
    expect(combinationsOf(many.slice(0, 6), 3).tried.length).toBeLessThan(20);
  });

  test('what stays too large however it is thinned is refused, and soon', () => {
    const axes = (count: number, size: number) =>
      Array.from({ length: count }, (_, i) => ({
        input: `f${i}`,
        values: Array.from({ length: size }, (__, at) => at),
      }));
    const two = 'For any two values to meet, more than 2000 combinations are needed.';
    expect(() => combinationsOf(axes(2, 3000), null)).toThrow(two);
    expect(() => combinationsOf(axes(20, 40), null)).toThrow(two);
    expect(() => combinationsOf(axes(4, 13), 3)).toThrow('For any three values to meet');
    expect(() => combinationsOf(axes(21, 2), null)).toThrow('varies at most 20 inputs');
    expect(combinationsOf(axes(2, 44), 2).tried).toHaveLength(44 * 44);
    const grid = { axes: axes(21, 2), accepted: { base: {}, outcomes: [{}], rows: [] } };
    expect(ScenarioSchema.safeParse({ ...scenario, grid }).error?.issues[0]?.message).toBe(
      'a grid varies at most 20 inputs',
    );
  });

  test('renames and other keys are carried through tables and grids', async () => {
    const both = ScenarioSchema.parse({
      ...(await kept()),
      cases: {
        inputs: ['kind'],
        expected: ['dues', 'kind.required', 'cargo[0].weight.locked'],
        rows: [{ inputs: ['oil'], expected: [200, false, false] }],
      },
    });
    const renamed = renameInScenario(both, 'kind', 'sort', 'field');
    expect(renamed.cases).toMatchObject({
      inputs: ['sort'],
      expected: ['dues', 'sort.required', 'cargo[0].weight.locked'],
    });
    expect(renamed.grid!.axes[0]!.input).toBe('sort');
    expect(Object.keys(renamed.grid!.accepted.base)).toContain('sort');
    expect(JSON.stringify(renamed)).not.toContain('"kind"');
    expect(renameInScenario(both, 'cargo.weight', 'mass', 'cell').cases!.expected[2]).toBe(
      'cargo[0].mass.locked',
    );
    const rekeyed = rekeyInScenario(both, 'kind', 'oil', 'crude', 'field');
    expect(rekeyed.cases!.rows[0]!.inputs).toEqual(['crude']);
    expect(rekeyed.grid!.axes[0]!.values).toEqual([null, 'bulk', 'crude', 'tug']);
    expect(rekeyed.grid!.accepted.base.kind!.options).toEqual(['bulk', 'crude', 'tug']);
  });
});

test('parts called like what every object has are parts like all others', async () => {
  const odd = formWith([choice('constructor', ['a', 'b']), text('valueof', { hidden: true })]);
  machine.load(
    materialOf(
      odd,
      { tables: [], services: [] },
      [
        {
          name: 'a.ts',
          text: "keep('x', () => { fields.valueof.shown = fields.constructor.value === 'a'; });",
        },
      ],
      'untraced',
    ),
  );
  const axes = [{ input: 'constructor', values: ['a', 'b'] }];
  const scenario = ScenarioSchema.parse({ title: 'g', open: { as: 'mira' }, steps: [] });
  const players: Player = async (opening, steps) => [
    machine.open(opening),
    ...steps.map((step) => machine.step(step)),
  ];
  const keys = Object.getOwnPropertyNames(Object).length;
  const accepted = folded(
    await playGrid(
      scenario,
      { axes, parts: null },
      combinationsOf(axes, null).tried,
      { form: odd, source: { tables: [] }, cast },
      players,
    ),
  );
  expect(Object.getOwnPropertyNames(Object)).toHaveLength(keys);
  expect(accepted.base.constructor).toMatchObject({ shown: true });
  expect(accepted.outcomes.map((outcome) => outcome.valueof)).toEqual([
    { shown: true },
    { shown: false },
  ]);
  const kept = ScenarioSchema.parse({ ...scenario, grid: { axes, accepted } });
  expect((await runScenario(kept, odd, { tables: [] }, cast, players)).misses).toEqual([]);
});
