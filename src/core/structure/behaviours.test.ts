import { expect, test } from 'vitest';
import type { Scenario } from '../scenario/definition';
import { newBehaviourName, renamedInScenario, renumbered } from './behaviours';

test('a new behaviour comes after all others, under a name made from its title', () => {
  expect(newBehaviourName('Late fées!', ['10-a.ts', '25-b.ts', 'x.js'])).toBe('30-late-fees.ts');
  expect(newBehaviourName('…', [])).toBe('10-behaviour.ts');
});

test.each([
  ['what stands in order stays', ['10-a.ts', '20-b.ts'], []],
  [
    'one that moved forward goes between its neighbours',
    ['10-a.ts', '30-c.ts', '20-b.ts'],
    [{ from: '30-c.ts', to: '15-c.ts' }],
  ],
  ['to the front', ['30-c.ts', '10-a.ts', '20-b.ts'], [{ from: '30-c.ts', to: '5-c.ts' }]],
  ['to the end', ['20-b.ts', '30-c.ts', '10-a.js'], [{ from: '10-a.js', to: '40-a.js' }]],
  [
    'without room all are numbered again',
    ['1-a.ts', '3-c.ts', '2-b.ts'],
    [
      { from: '1-a.ts', to: '10-a.ts' },
      { from: '3-c.ts', to: '20-c.ts' },
      { from: '2-b.ts', to: '30-b.ts' },
    ],
  ],
  ['one without a number gets one', ['10-a.ts', 'x.ts'], [{ from: 'x.ts', to: '20-x.ts' }]],
])('%s', (_what, order, renames) => {
  expect(renumbered(order)).toEqual(renames);
});

test('scenarios that expect errors of a behaviour follow it', () => {
  const scenario = {
    title: 'A',
    open: { as: 'mira' },
    steps: [
      { submit: true },
      { expect: { '@errors': [{ behaviour: '30-c', line: 2 }, { says: 'x' }] } },
    ],
  } as unknown as Scenario;
  expect(renamedInScenario(scenario, [{ from: '30-c.ts', to: '15-c.ts' }]).steps[1]).toEqual({
    expect: { '@errors': [{ behaviour: '15-c', line: 2 }, { says: 'x' }] },
  });
  expect(renamedInScenario(scenario, [{ from: '10-a.ts', to: '20-a.ts' }])).toBe(scenario);
});
