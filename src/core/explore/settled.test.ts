import { expect, test } from 'vitest';
import { settled } from './settled';
import type { Finding } from './finding';

const opening = {
  person: { key: 'mira', name: 'Mira', roles: [] },
  record: null,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
};
const hint = (kind: Finding['kind'], line: number): Finding => ({
  kind,
  level: 'may',
  part: 'x',
  aspect: 'y',
  lines: [{ behaviour: 'pilot', line }],
  says: '',
  way: { opening, steps: [] },
  other: null,
  met: null,
  also: [],
});

test.each([
  ['one-sided', 4, { behaviour: 'pilot', line: 4, code: 'option-gone' }, 'wrong'],
  ['one-sided', 4, { behaviour: 'pilot', line: 4, code: 'beyond-limits' }, 'wrong'],
  ['one-sided', 4, { behaviour: 'pilot', line: 5, code: 'option-gone' }, 'may'],
  ['one-sided', 4, { behaviour: 'berth', line: 4, code: 'option-gone' }, 'may'],
  ['one-sided', 4, { behaviour: 'pilot', line: 4, code: 'idle-behaviour' }, 'may'],
  // The lookup stands elsewhere than the line that it makes no difference to.
  ['no-difference', 9, { behaviour: 'pilot', line: 2, code: 'label-for-key' }, 'wrong'],
  ['no-difference', 9, { behaviour: 'pilot', line: 9, code: 'never-reached' }, 'may'],
  ['conflict', 3, { behaviour: 'pilot', line: 3, code: 'two-steer' }, 'wrong'],
  ['overwrites-typed', 3, { behaviour: 'pilot', line: 3, code: 'option-gone' }, 'may'],
] as const)('%s at line %i beside %o is %s', (kind, line, proof, level) => {
  expect(settled([hint(kind, line)], [proof])[0]!.level).toBe(level);
});
