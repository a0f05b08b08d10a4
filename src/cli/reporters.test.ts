import { expect, test } from 'vitest';
import { reporters, type ReportedScenario } from './reporters';

const outcomes: ReportedScenario[] = [
  {
    form: 'visit',
    file: 'v/a.json',
    name: 'a',
    title: 'All <well> & "good" #1',
    passed: true,
    misses: [],
    steps: 2,
  },
  {
    form: 'visit',
    file: 'v/b.json',
    name: 'b',
    title: 'Not well',
    passed: false,
    misses: [
      {
        entry: 5,
        after: 3,
        at: null,
        part: 'dues',
        aspect: 'value',
        says: 'dues.value is 1, expected 2\u0001',
        expected: 2,
        actual: 1,
      },
    ],
    steps: 4,
  },
];

test('for people: a line a scenario, file and step of each difference, and the count', () => {
  expect(reporters.spec!(outcomes)).toBe(
    'visit\n  ✓ All <well> & "good" #1\n  ✗ Not well\n      v/b.json: step 3: dues.value is 1, expected 2\u0001\n\n1 passed, 1 failed\n',
  );
});

test('JUnit is well-formed XML whatever is in a title or a value', () => {
  const xml = reporters.junit!(outcomes);
  expect(xml).toContain('name="All &#60;well&#62; &#38; &#34;good&#34; #1"');
  expect(xml).toContain('<testsuite name="visit" tests="2" failures="1">');
  expect(xml).not.toContain('\u0001');
});

test('TAP 14 counts its plan and escapes what would be a directive', () => {
  expect(reporters.tap!(outcomes).split('\n').slice(0, 4)).toEqual([
    'TAP version 14',
    '1..2',
    'ok 1 - visit: All <well> & "good" \\#1',
    'not ok 2 - visit: Not well',
  ]);
});

test('JSON holds the outcomes as they are', () => {
  expect(JSON.parse(reporters.json!(outcomes))).toEqual({ passed: false, scenarios: outcomes });
});
