import { expect, test } from 'vitest';
import { soundnessInWords, workspaceName, type WorkspaceRow } from './workspaces';

test.each([
  ['Harbour of Vessaly', [], 'harbour-of-vessaly'],
  ['Harbour of Vessaly', ['harbour-of-vessaly'], 'harbour-of-vessaly-2'],
  ['Zoë & Søn — büro', [], 'zoe-s-n-buro'],
  ['../../etc', [], 'etc'],
  ['港', [], 'workspace'],
  ['x'.repeat(300), [], 'x'.repeat(40)],
  [`${'a'.repeat(39)} b`, [], 'a'.repeat(39)],
])('%s is called by a name for addresses', (title, taken, name) => {
  expect(workspaceName(title, new Set(taken))).toBe(name);
  expect(name).toMatch(/^[a-z0-9][a-z0-9-]{0,59}$/);
});

test('what is known of a workspace, in words', () => {
  const row: WorkspaceRow = {
    name: 'x',
    title: 'X',
    first: false,
    archived: false,
    folder: null,
    forms: 2,
    errors: 0,
    warnings: 0,
    failing: 0,
    unchecked: 0,
    changedAt: null,
  };
  const says = (more: Partial<WorkspaceRow>) =>
    Object.values(soundnessInWords({ ...row, ...more }));
  expect(says({})).toEqual(['good', 'no problems']);
  expect(says({ forms: 0 })).toEqual(['unknown', 'no form yet']);
  expect(says({ unchecked: 1 })).toEqual(['unknown', '1 form not checked yet']);
  expect(says({ warnings: 2, unchecked: 1 })).toEqual(['warning', '2 warnings']);
  expect(says({ errors: 1, failing: 3 })).toEqual(['bad', '1 error, 3 failing scenarios']);
});
