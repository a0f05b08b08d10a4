import { describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { addressesOf } from './addresses';
import { ScenarioSchema } from './definition';
import { namedInputs, namedParts, unknownNames } from './naming';

const form = formWith(
  [
    choice('kind', ['bulk', 'oil']),
    { ...text('secret'), scriptOnly: true } as ReturnType<typeof text>,
    rows('cargo', [number('weight'), text('mark')]),
  ],
  { launch: [{ name: 'quay', label: 'Quay', kind: 'number' }] },
);
const keysOf = (named: readonly { key: string }[]) => named.map(({ key }) => key);

describe('parts to choose from', () => {
  test('are those of the form, with the cells of the rows that are there', () => {
    expect(keysOf(namedParts(form, 'values'))).toEqual([
      'kind',
      'secret',
      'cargo',
      'cargo[0].weight',
      'cargo[0].mark',
    ]);
    expect(keysOf(namedParts(form, 'values', () => [1]))).toContain('cargo[1].mark');
    for (const key of keysOf(namedParts(form, 'all')))
      expect(addressesOf(form)).toContain(key.replace('[0]', '[]'));
  });

  test('what can be varied is what people enter, and how the form is opened', () => {
    expect(keysOf(namedInputs(form, [{ name: 'register' }]))).toEqual([
      'kind',
      'cargo[0].weight',
      'cargo[0].mark',
      '@as',
      '@record',
      '@launch.quay',
      '@fails.register',
    ]);
  });
});

test('an axis that is no part and no launch parameter is named', () => {
  const axes = ['kind', 'kimd', '@launch.quay', '@launch.qay', '@as', '@fails.register'].map(
    (input) => ({ input, values: [null] }),
  );
  const accepted = { base: {}, outcomes: [{}], rows: [] };
  const grid = ScenarioSchema.parse({
    title: 't',
    open: { as: 'mira' },
    steps: [],
    grid: { axes, accepted },
  });
  expect(unknownNames(grid, form).map(({ says }) => says)).toEqual([
    'the form has no part "kimd"',
    'the form has no launch parameter "qay"',
  ]);
});
