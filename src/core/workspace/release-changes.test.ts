import { expect, test } from 'vitest';
import { ScenarioSchema } from '../scenario/definition';
import { folded } from '../scenario/grid';
import { gridCellsChanged } from './release-changes';

const axes = [{ input: 'kind', values: ['bulk', 'oil'] }];
const withGrid = (required: boolean[], more = axes) => [
  {
    name: 'pilots',
    scenario: ScenarioSchema.parse({
      title: 'Pilots',
      open: { as: 'mira' },
      steps: [],
      grid: {
        axes: more,
        accepted: folded(
          required.map((value, i) => ({
            places: [i],
            outcome: { pilot: { required: value }, dues: { value: 3 } },
          })),
        ),
      },
    }),
  },
];

test('cells of a grid that was accepted anew are told by their combination', () => {
  const file = 'forms/visit/scenarios/pilots.json';
  expect(gridCellsChanged('visit', withGrid([false, false]), withGrid([false, true]))).toEqual([
    {
      file,
      says: 'grid pilots, with kind "oil": pilot.required no (false) → yes (true)',
    },
  ]);
  expect(gridCellsChanged('visit', withGrid([false, true]), withGrid([false, true]))).toEqual([]);
  expect(gridCellsChanged('visit', [], withGrid([true, true]))).toEqual([]);
});

test('combinations are compared by their values, and many cells are counted', () => {
  const values = ['oil', 'bulk', 'a', 'b', 'c', 'd', 'e', 'f'];
  const eight = (required: boolean) =>
    withGrid(
      values.map(() => required),
      [{ input: 'kind', values }],
    );
  // The same values at other places, and some that were not there.
  expect(gridCellsChanged('visit', withGrid([false, false]), eight(false))).toEqual([]);
  const many = gridCellsChanged('visit', eight(false), eight(true));
  expect(many).toHaveLength(6);
  expect(many.at(-1)!.says).toBe('grid pilots: 3 more cells');
});
