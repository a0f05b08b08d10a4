import { beforeAll, describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, yesNo } from '../../../tests/support/forms';
import { materialOf } from '../language/material';
import { startModule } from '../sandbox/quickjs';
import { Sandbox } from '../sandbox/sandbox';
import type { Step } from '../session/step';
import { casesAsCsv, casesFromCsv } from './cases-csv';
import { ScenarioSchema, type Cases, type Expectation } from './definition';
import {
  accepting,
  aspectsOf,
  canAccept,
  expectChanged,
  movedTo,
  stepsBefore,
  valueNow,
  whatStepChanged,
  wholeState,
  withAspect,
} from './editing';
import { combinationsOf, folded, playGrid } from './grid';
import { openingOf } from './opening';
import { runScenario, type Player } from './run-scenario';
import { seenAt } from './seen';

const form = formWith([
  choice('kind', ['bulk', 'oil']),
  yesNo('pilot'),
  number('dues'),
  rows('cargo', [number('weight')]),
]);
const cast = { people: [{ key: 'mira', name: 'Mira Oldane', roles: [] }], records: [] };
const SOURCE = `
keep('pilot', () => { fields.pilot.required = fields.kind.value === 'oil'; });
on.change(fields.kind, ({ value }) => { fields.dues.value = value === 'oil' ? 200 : 100; if (value === 'oil') form.message('Oil.'); });
`;
let play: Player;
beforeAll(async () => {
  const machine = new Sandbox(await startModule(), { temporal: false });
  machine.load(
    materialOf(form, { tables: [], services: [] }, [{ name: 'a.ts', text: SOURCE }], 'untraced'),
  );
  play = async (opening, steps) => [
    machine.open(opening),
    ...steps.map((step) => machine.step(step)),
  ];
});
const run = (scenario: object) =>
  runScenario(ScenarioSchema.parse(scenario), form, { tables: [] }, cast, play);

const STEPS: Step[] = [
  { set: 'kind', to: 'oil' },
  { addRow: 'cargo', with: { weight: 3 } },
];
const answersOf = () => play(openingOf({ as: 'mira' }, form, cast), STEPS);

/** A scenario with these entries, and after them each of the steps with what it changed. */
async function taken(entries: object[]) {
  let scenario = ScenarioSchema.parse({ title: 't', open: { as: 'mira' }, steps: entries });
  const done = stepsBefore(scenario, entries.length);
  const all = [...scenario.steps.filter((one): one is Step => !('expect' in one)), ...STEPS];
  const answers = await play(openingOf({ as: 'mira' }, form, cast), all);
  for (const [i, step] of STEPS.entries()) {
    const expected = expectChanged(scenario, step, form, answers, done + i + 1);
    scenario = { ...scenario, steps: [...scenario.steps, step, expected] };
  }
  return scenario;
}

describe('taking over', () => {
  test('what a step changed, the whole state, or one aspect', async () => {
    const answers = await answersOf();
    expect(whatStepChanged(STEPS[0]!, form, answers, 1)).toEqual({
      pilot: { required: true },
      dues: { value: 200 },
      '@messages': [{ text: 'Oil.', tone: 'info' }],
    });
    // That nothing else changed is said where it is known, and holds.
    const { steps } = await taken([]);
    expect(steps).toMatchObject([
      STEPS[0],
      { expect: { dues: { value: 200 }, '@nothingElse': true } },
      STEPS[1],
      { expect: { '@nothingElse': true } },
    ]);
    const unsaid = [{ set: 'dues', to: 5 }, { expect: { dues: { value: 5 } } }];
    expect((await taken(unsaid)).steps[3]!).not.toHaveProperty('expect.@nothingElse');
    const said = [unsaid[0]!, { expect: { '@nothingElse': true, dues: { value: 5 } } }];
    expect((await taken(said)).steps[3]).toHaveProperty('expect.@nothingElse', true);
    for (const first of [[], unsaid, said])
      expect((await run(await taken(first))).misses).toEqual([]);
    const seen = seenAt(answers, 2);
    expect(wholeState(seen)).toMatchObject({
      kind: { shown: true, locked: false, required: false, value: 'oil', problem: null },
      cargo: { count: 1, shown: true },
    });
    expect(wholeState(seen)).not.toHaveProperty('cargo.value');
    expect(aspectsOf(seen, form, 'pilot')).toContain('required');
    expect(aspectsOf(seen, form, 'nothing')).toEqual([]);
    expect(valueNow(seen, form, 'cargo[0].weight', 'value')).toBe(3);
    // And the whole state holds when it is looked at again.
    const whole = {
      title: 't',
      open: { as: 'mira' },
      steps: [...STEPS, { expect: wholeState(seen) }],
    };
    expect((await run(whole)).misses).toEqual([]);
  });

  test('an aspect is put in, changed in its place, and left out with its part', () => {
    const one = withAspect({ '@page': 'main' } as Expectation, 'pilot', 'shown', true);
    const two = withAspect(one, 'pilot', 'required', false);
    expect(two).toEqual({ '@page': 'main', pilot: { shown: true, required: false } });
    expect(
      withAspect(withAspect(two, 'pilot', 'shown', undefined), 'pilot', 'required', undefined),
    ).toEqual({ '@page': 'main' });
  });

  test('entries are counted and moved', () => {
    const scenario = ScenarioSchema.parse({
      title: 't',
      open: { as: 'mira' },
      steps: [STEPS[0], { expect: {} }, STEPS[1]],
    });
    expect([0, 1, 2, 3].map((entry) => stepsBefore(scenario, entry))).toEqual([0, 1, 1, 2]);
    expect(movedTo(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a']);
    expect(movedTo(['a'], 4, 0)).toEqual(['a']);
  });
});

describe('accepting what came', () => {
  test('in an expectation, for all or for one, and it passes then', async () => {
    const scenario = ScenarioSchema.parse({
      title: 't',
      open: { as: 'mira' },
      steps: [
        STEPS[0],
        { expect: { dues: { value: 1 }, pilot: { required: false }, '@nothingElse': true } },
        { submit: true },
        { expect: { '@submit': { saved: true, values: { dues: 7 } } } },
      ],
    });
    const { misses } = await run(scenario);
    expect(misses.map(({ part, aspect }) => [part, aspect])).toEqual([
      ['dues', 'value'],
      ['pilot', 'required'],
      ['@messages', null],
      ['@submit', 'saved'],
      ['@submit', 'values.dues'],
    ]);
    expect((await run(accepting(scenario, [misses[0]!], form))).misses).toHaveLength(4);
    expect((await run(accepting(scenario, misses, form))).misses).toEqual([]);
  });

  test('in a table and in a grid', async () => {
    const table = ScenarioSchema.parse({
      title: 't',
      open: { as: 'mira' },
      steps: [],
      cases: {
        inputs: ['kind'],
        expected: ['dues', 'pilot.required'],
        rows: [
          { inputs: ['oil'], expected: [1, false] },
          { inputs: ['bulk'], expected: [100, false] },
        ],
      },
    });
    const accepted = accepting(table, (await run(table)).misses, form);
    expect(accepted.cases!.rows.map(({ expected }) => expected)).toEqual([
      [200, true],
      [100, false],
    ]);
    const axes = [{ input: 'kind', values: ['bulk', 'oil'] }];
    const empty = ScenarioSchema.parse({ title: 'g', open: { as: 'mira' }, steps: [] });
    const combinations = await playGrid(
      empty,
      { axes, parts: null },
      combinationsOf(axes, null).tried,
      { form, source: { tables: [] }, cast },
      play,
    );
    combinations[1]!.outcome.dues!.value = 3;
    const grid = { ...empty, grid: { axes, accepted: folded(combinations) } };
    const { misses } = await run(grid);
    expect(misses).toMatchObject([{ at: 1, part: 'dues', expected: 3, actual: 200 }]);
    expect((await run(accepting(grid, misses, form))).misses).toEqual([]);
  });

  test('not for an error: that is a fault first', () => {
    const miss = { entry: 0, after: 1, at: null, aspect: null, says: 'x' };
    expect(canAccept({ ...miss, part: '@errors' })).toBe(false);
    expect(canAccept({ ...miss, part: 'dues', actual: null })).toBe(true);
  });
});

describe('a table as CSV', () => {
  const cases: Cases = {
    inputs: ['kind', '@as'],
    steps: [{ submit: true }],
    expected: ['dues', 'pilot.required', '@messages'],
    rows: [
      { title: 'oil, with quotes "', inputs: ['oil', 'mira'], expected: [200, true, ['Oil.']] },
      { inputs: [null, '7'], expected: [null, false, []] },
    ],
  };

  test('comes back as it went', () => {
    expect(casesAsCsv(cases, form).split('\n')[0]).toBe(
      'title,kind,@as,→ dues,→ pilot.required,→ @messages',
    );
    expect(casesFromCsv(casesAsCsv(cases, form), cases, form)).toEqual(cases);
  });

  test('is read as offices write it, and says by line what is wrong', () => {
    expect(casesFromCsv('title;kind;-> dues\r\n;oil;200\r\n', undefined, form)).toEqual({
      inputs: ['kind'],
      expected: ['dues'],
      rows: [{ inputs: ['oil'], expected: [200] }],
    });
    expect(casesFromCsv('kind,dues\noil,1', undefined, form)).toMatchObject({
      says: expect.stringContaining('The first line names the columns'),
    });
    expect(casesFromCsv('title,kind\na,b,c', undefined, form)).toEqual({
      says: 'Line 2 has 3 values, the first line names 2 columns.',
    });
    expect(casesFromCsv('title,kind\n"a', undefined, form)).toMatchObject({
      says: expect.stringContaining('cannot be read'),
    });
    expect(casesFromCsv('title,@who\na,b', undefined, form)).toMatchObject({
      says: expect.stringContaining('is no input'),
    });
  });
});
