/** What changes in a live folder while somebody types on the bench, with the server answering by hand. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../tests/support/bench';
import type { Bench } from './create-bench';

let live: object;
let bench: Bench;
let saves: 'taken' | 'refused';

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  saves = 'refused';
  live = state({});
  ({ bench } = benchOf({
    behaviours: { '10-a.ts': 'log(1);' },
    answers: ({ method, path }) =>
      path.endsWith('/live')
        ? { status: 200, body: live }
        : path.endsWith('/revisions')
          ? { status: 200, body: [{ revision: 2, text: 'log("theirs");' }] }
          : method === 'PUT' && saves === 'refused'
            ? { status: 503, body: { says: 'gone' } }
            : { status: 200, body: { revision: 2 } },
  }));
  bench.folder.begin();
});
afterEach(() => {
  bench.stop();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

function state(changes: object): object {
  const folder = { folder: '/w', errors: [], conflicts: [] };
  return {
    folder,
    definition: 1,
    scripts: { '10-a.ts': 1 },
    scenarios: {},
    around: 'a',
    ...changes,
  };
}
const looks = async (times = 1) => {
  for (let i = 0; i < times; i++) await vi.advanceTimersByTimeAsync(301);
};
const text = () => bench.code.store.getState().behaviours[0]!.text;

test('a script that changed outside is taken and runs', async () => {
  live = state({ scripts: { '10-a.ts': 2 } });
  await looks(2);
  expect(text()).toBe('log("theirs");');
  expect(bench.core.store.getState().handsOver).toBeNull();
});

test('nothing that is typed and not saved is written over', async () => {
  bench.code.edit('10-a.ts', 'log("mine");');
  await bench.core.saving.saveAll();
  live = state({ scripts: { '10-a.ts': 2 }, around: 'b' });
  await looks(4);
  expect(text()).toBe('log("mine");');
  expect(bench.core.store.getState().handsOver).toBeNull();
});

test('whatever else changed makes the bench anew, once it was there at two looks', async () => {
  await looks();
  live = state({ definition: 2 });
  await looks();
  expect(bench.core.store.getState().handsOver).toBeNull();
  await looks();
  expect(bench.core.store.getState().handsOver).toEqual({});
});

test('how the folder is doing is shown', async () => {
  live = state({ folder: { folder: '/w', errors: ['a: broken'], conflicts: [] } });
  await looks();
  expect(bench.folder.store.getState().folder?.errors).toEqual(['a: broken']);
});
