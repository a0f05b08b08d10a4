import { expect, test } from 'vitest';
import { counted } from './counted';

test.each([
  [0, '0 rows'],
  [1, '1 row'],
  [2, '2 rows'],
])('%i is %s', (count, says) => {
  expect(counted(count, 'row')).toBe(says);
});

test('what has a plural of its own says it', () => {
  expect([counted(1, 'person', 'people'), counted(3, 'person', 'people')]).toEqual([
    '1 person',
    '3 people',
  ]);
});
