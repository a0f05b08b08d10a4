/** The threads for tasks: what takes too much work is ended, its thread is replaced, and nobody else is kept waiting. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { CutShort, Refusal } from '../../src/server/http/refusal';
import { task } from '../../src/server/machines/tasks';
import { inWorkspace } from '../../src/server/database/current-workspace';
import { formWith, text } from '../support/forms';
import { thorough } from '../support/thorough';
import { freshDatabase } from './support';

let end: () => Promise<void>;
beforeAll(async () => {
  end = await freshDatabase('tasks');
});
afterAll(() => end());

const search = (wanted: string, text: string) =>
  task('search', {
    scripts: [{ form: null, name: '10-a.ts', text }],
    query: { wanted, pattern: true, exact: false },
  });
const BACKTRACKS = ['(a|aa)+!', 'a'.repeat(60)] as const;
const of = (schema: string, work: () => Promise<unknown>) =>
  inWorkspace({ name: schema, schema }, work);

test('searches that never end are each answered, and the threads are there afterwards', async () => {
  const came = await Promise.allSettled(
    Array.from({ length: thorough ? 12 : 3 }, () => search(...BACKTRACKS)),
  );
  for (const one of came) {
    expect(one.status).toBe('rejected');
    const { reason } = one as PromiseRejectedResult;
    expect(reason).toBeInstanceOf(Refusal);
    // On a busy machine some are asked to come again before it is their turn.
    if (!(reason instanceof CutShort))
      expect((reason as Refusal).message).toMatch(/pattern takes too long/);
  }
  expect(await search('aaa', 'xaaax')).toMatchObject([{ line: 1 }]);
});

test.each([
  ['a pattern that is none', () => search('(', 'x'), /./],
  [
    'what is nested deeper than can be read',
    () =>
      task('readRecords', {
        form: formWith([text('vessel')]),
        text: `[{"vessel":${'['.repeat(50_000)}${']'.repeat(50_000)}}]`,
        as: 'json',
      }),
    /nested too deeply to be read/,
  ],
])('%s is refused in words, and the thread goes on', async (_, asked, says) => {
  const refused = await asked().then(
    () => null,
    (caught: unknown) => caught,
  );
  expect(refused).toBeInstanceOf(Refusal);
  expect((refused as Refusal).message).toMatch(says);
  expect(await search('aaa', 'xaaax')).toMatchObject([{ line: 1 }]);
});

test('what one workspace keeps busy keeps no other waiting', async () => {
  const order: string[] = [];
  const bad = Array.from({ length: 4 }, () =>
    of('ws_1', () => search(...BACKTRACKS)).catch(() => order.push('bad')),
  );
  await of('ws_2', () => search('b', 'abc')).then(() => order.push('good'));
  expect(order.indexOf('good')).toBeLessThan(3);
  await Promise.all(bad);
  expect(order).toHaveLength(5);
});

test('too many that wait are asked to come again, with words and a time', async () => {
  const all = await Promise.allSettled(Array.from({ length: 320 }, () => search('a', 'a')));
  const refused = all.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
  expect(refused.length).toBeGreaterThan(0);
  for (const reason of refused) {
    expect(reason).toBeInstanceOf(CutShort);
    expect((reason as CutShort).headers['retry-after']).toBe('5');
  }
});
