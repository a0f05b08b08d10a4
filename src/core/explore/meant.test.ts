import { expect, test } from 'vitest';
import type { Finding } from './finding';
import { judged, meantIn, outdatedInWords } from './meant';

const finding = (kind: Finding['kind'], line: number, behaviour = '10-a') =>
  ({
    kind,
    lines: [
      { behaviour, line: 3 },
      { behaviour, line },
    ],
    also: [],
  }) as unknown as Finding;
const answer = (text: string) => meantIn([{ name: '10-a.ts', text }]);

test('an answer is read with its reason, wherever in its line it stands', () => {
  expect(
    meantIn([
      { name: '10-a.ts', text: 'a();\n  b(); // tavro: meant, not-back: stays on file \n' },
      { name: 'behaviours/20-b.ts', text: '//tavro:meant, order, at-load:  the last one wins' },
    ]),
  ).toEqual([
    { behaviour: '10-a', line: 2, kind: 'not-back', reason: 'stays on file' },
    { behaviour: 'behaviours/20-b', line: 1, kind: 'order', reason: 'the last one wins' },
    { behaviour: 'behaviours/20-b', line: 1, kind: 'at-load', reason: 'the last one wins' },
  ]);
});

test.each([
  '// tavro: meant, not-back:',
  '// tavro: meant: because',
  '/* tavro: meant, order: x */',
])('%s is no answer: it lacks a kind or a reason, or is no comment of a line', (text) =>
  expect(answer(text)).toEqual([]),
);

test('it counts for its own kind, at a line of the finding or right above it', () => {
  const meant = answer('\n\n\n// tavro: meant, not-back: on file');
  const rest = (one: Finding) => judged([one], meant).findings.length;
  expect([5, 4, 6].map((line) => rest(finding('not-back', line)))).toEqual([0, 0, 1]);
  expect(rest(finding('order', 5))).toBe(1);
  expect(rest(finding('not-back', 5, '20-b'))).toBe(1);
});

test('of several answers that at the first line counts', () => {
  const meant = answer(
    '// tavro: meant, not-back: another line\n\n// tavro: meant, not-back: this line',
  );
  expect(judged([finding('not-back', 1)], meant).meant.map(({ reason }) => reason)).toEqual([
    'this line',
  ]);
});

test('an answer to nothing is told: what it was for is gone, or there is no such kind', () => {
  const meant = answer('// tavro: meant, not-back: x\n// tavro: meant, never-mind: y');
  const { outdated } = judged([finding('order', 1)], meant);
  expect(outdated.map(outdatedInWords)).toEqual([
    'nothing of the kind not-back is found here any more, so there is nothing to answer',
    'there is no kind of finding called never-mind',
  ]);
  expect(judged([finding('not-back', 1)], meant.slice(0, 1)).outdated).toEqual([]);
});
