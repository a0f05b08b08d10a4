import { expect, test } from 'vitest';
import { Busy, Turns } from './turns';

const settled = () => new Promise((resolve) => setTimeout(resolve, 5));

function turns(options: Partial<ConstructorParameters<typeof Turns>[0]> = {}) {
  const made = new Turns({
    size: 3,
    mostWaitingOfOne: 4,
    mostWaiting: 6,
    patience: 10_000,
    ...options,
  });
  const had: string[] = [];
  const ends: (() => void)[] = [];
  const take = (whose: string) =>
    made.take(whose).then((end) => {
      had.push(whose);
      ends.push(end);
    });
  return { take, had, ends };
}

test('one never has all of them, whatever waits', async () => {
  const { take, had } = turns();
  for (let i = 0; i < 5; i++) void take('a');
  await settled();
  expect(had).toEqual(['a', 'a']);
  await take('b');
  expect(had).toEqual(['a', 'a', 'b']);
});

test('those who wait take turns, however many each has', async () => {
  const { take, had, ends } = turns({ size: 1, mostWaitingOfOne: 20, mostWaiting: 20 });
  for (const whose of ['a', 'a', 'a', 'a', 'b', 'b', 'c']) void take(whose);
  for (let i = 0; i < 7; i++) {
    await settled();
    ends[i]!();
  }
  expect(had).toEqual(['a', 'a', 'b', 'c', 'a', 'b', 'a']);
});

test('who would wait behind too many is told so at once, and others still wait', async () => {
  const { take } = turns();
  for (let i = 0; i < 6; i++) void take('a').catch(() => undefined);
  await settled();
  await expect(take('a')).rejects.toBeInstanceOf(Busy);
  void take('b');
  void take('b').catch(() => undefined);
  void take('b').catch(() => undefined);
  await expect(take('c')).rejects.toMatchObject({ retryAfter: 5 });
});

test('who waits too long is told when to come again, and keeps nobody from a turn', async () => {
  const { take, had, ends } = turns({ size: 1, patience: 20 });
  await take('a');
  await expect(take('b')).rejects.toMatchObject({ retryAfter: 10 });
  ends[0]!();
  await take('c');
  expect(had).toEqual(['a', 'c']);
});
