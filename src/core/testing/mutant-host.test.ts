/** A busy machine is not taken for a script that never ends. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Engine } from '../sandbox/engine';
import { PAUSES, TookTooLong } from '../sandbox/cut-short';
import { mutantHostOn } from './mutant-host';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** An engine that is cut short so many times before it answers. */
function hostCutShort(times: number) {
  let left = times;
  const tryMutant = vi.fn(() =>
    left-- > 0 ? Promise.reject(new TookTooLong()) : Promise.resolve({ answers: [], reached: [] }),
  );
  const host = mutantHostOn({ tryMutant } as unknown as Engine, {} as never, 7);
  return { tryMutant, host };
}

async function played(host: ReturnType<typeof hostCutShort>['host'], mutant: number) {
  const came = host.play({} as never, [], mutant);
  await vi.runAllTimersAsync();
  return came;
}

test.each([
  [0, 3, 'done'],
  [4, 1, 'done'],
  [4, 2, null],
] as const)('mutant %i, cut short %i times', async (mutant, times, outcome) => {
  const { host, tryMutant } = hostCutShort(times);
  const came = await played(host, mutant);
  expect(came === null ? null : 'done').toBe(outcome);
  expect(tryMutant).toHaveBeenCalledTimes(outcome === null ? times : times + 1);
});

test('any other error is passed on', async () => {
  const engine = { tryMutant: () => Promise.reject(new Error('closed')) } as unknown as Engine;
  await expect(mutantHostOn(engine, {} as never, 1).play({} as never, [], 0)).rejects.toThrow(
    'closed',
  );
});

test('a script that never ends by itself is waited for with patience once', async () => {
  const { host, tryMutant } = hostCutShort(Infinity);
  expect([await played(host, 0), await played(host, 0)]).toEqual([null, null]);
  expect(tryMutant).toHaveBeenCalledTimes(PAUSES.length + 1 + 2);
});
