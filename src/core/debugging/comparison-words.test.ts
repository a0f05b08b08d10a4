import { expect, test } from 'vitest';
import type { Value } from '../form/value';
import { cameInWords, comparisonInWords } from './comparison-words';

const words = (left: Value, op: string, right: Value, came: boolean) =>
  comparisonInWords({
    text: '',
    op,
    left: { text: '', value: left },
    right: { text: '', value: right },
    came,
  });

test.each<[Value, string, Value, boolean, string]>([
  [7, '>', 5, true, '7 > 5'],
  [5, '>', 7, false, '5 ≤ 7'],
  [5, '>=', 7, false, '5 < 7'],
  [7, '<', 5, false, '7 ≥ 5'],
  [7, '<=', 5, false, '7 > 5'],
  // Between a number and nothing no opposite sign is true.
  [null, '>', 5, false, 'nothing is not > 5'],
  [5, '<', null, false, '5 is not < nothing'],
  ['a', '<=', 'b', false, '"a" is not ≤ "b"'],
  ['own', '===', 'own', true, '"own" = "own"'],
  ['own', '===', 'none', false, '"own" ≠ "none"'],
  ['own', '!==', 'own', false, '"own" = "own"'],
  [['a', 'b'], 'includes', 'b', true, '["a", "b"] has "b"'],
  [['a'], 'includes', 'b', false, '["a"] has no "b"'],
])('%j %s %j, which is %s: %s', (left, op, right, came, told) => {
  expect(words(left, op, right, came)).toBe(told);
});

test.each<[Value, string]>([
  [true, 'holds'],
  [false, 'does not hold'],
  [null, 'is empty'],
  ['', 'is empty'],
  ['tug', 'is "tug"'],
  [0, 'is 0'],
])('a condition that came to %j %s', (came, told) => {
  expect(cameInWords(came)).toBe(told);
});
