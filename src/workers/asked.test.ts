/** A worker that does not answer is ended and restarted; nobody waits for it, and nothing else is lost. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { PatientWorker, type Asking } from './asked';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

interface Offered extends Record<string, (text: string) => string> {
  put: (text: string) => string;
  diagnose: (text: string) => string;
}

/** Workers that answer every text but `stuck` with itself, after 10 ms, and refuse `bad`. */
function asked() {
  const workers: { got: string[]; ended: boolean; slow: boolean }[] = [];
  const start = (): Asking<Offered> => {
    const worker = { got: [] as string[], ended: false, slow: false };
    workers.push(worker);
    let stuck = false;
    const answer = (text: string) => {
      worker.got.push(text);
      stuck ||= text === 'stuck';
      return new Promise<string>((resolve, reject) => {
        if (!stuck && !worker.slow)
          setTimeout(() => (text === 'bad' ? reject(new Error(text)) : resolve(text)), 10);
      });
    };
    return {
      calls: { put: answer, diagnose: answer } as unknown as Asking<Offered>['calls'],
      end: () => void (worker.ended = true),
    };
  };
  const over: unknown[] = [];
  const client = new PatientWorker<Offered>(
    start,
    {
      ended: ({ given: [text] }) => void over.push(text),
      begun: () => [{ call: 'put', given: ['known'] }],
    },
    { silence: 5000, start: 60_000 },
  );
  const ask = (text: string) => client.ask('diagnose', [text], `not ${text}`);
  return { client, ask, workers, over };
}

test('answers go to who asked, in order', async () => {
  const { ask, workers } = asked();
  const answers = Promise.all([ask('a'), ask('b')]);
  await vi.advanceTimersByTimeAsync(100);
  expect([await answers, workers.length]).toEqual([['a', 'b'], 1]);
});

test('the request it got stuck at is answered with what was set aside, the others are asked again of a new worker that knows what the last one knew', async () => {
  const { ask, workers, over } = asked();
  const first = ask('a');
  await vi.advanceTimersByTimeAsync(100);
  const rest = Promise.all([ask('stuck'), ask('b'), ask('c')]);
  await vi.advanceTimersByTimeAsync(4900);
  expect(workers).toHaveLength(1);
  // Alone it has ten times as long, once the new worker has started.
  await vi.advanceTimersByTimeAsync(300);
  expect([workers.length, over]).toEqual([2, []]);
  await vi.advanceTimersByTimeAsync(49_000);
  expect(workers).toHaveLength(2);
  await vi.advanceTimersByTimeAsync(62_000);
  expect([await first, await rest]).toEqual(['a', ['not stuck', 'b', 'c']]);
  expect([workers.map(({ ended }) => ended), workers.map(({ got }) => got), over]).toEqual([
    [true, true, false],
    [
      ['a', 'stuck', 'b', 'c'],
      ['known', 'stuck', 'b', 'c'],
      ['known', 'b', 'c'],
    ],
    ['stuck'],
  ]);
});

test('one that was only kept waiting by a busy machine is asked again, and nothing is said of it', async () => {
  const { ask, workers, over } = asked();
  void ask('a');
  await vi.advanceTimersByTimeAsync(100);
  workers[0]!.slow = true;
  const answer = ask('b');
  await vi.advanceTimersByTimeAsync(6000);
  expect([await answer, workers.length, over]).toEqual(['b', 2, []]);
});

test('a new worker has longer, since it has to start first', async () => {
  const { ask, workers } = asked();
  const answer = ask('stuck');
  await vi.advanceTimersByTimeAsync(59_000);
  expect(workers).toHaveLength(1);
  await vi.advanceTimersByTimeAsync(7000);
  expect(workers).toHaveLength(2);
  await vi.advanceTimersByTimeAsync(111_000);
  expect([await answer, workers.length]).toEqual(['not stuck', 3]);
});

test('one that is closed is not started again', async () => {
  const { client, ask, workers } = asked();
  void ask('stuck');
  client.close();
  await vi.advanceTimersByTimeAsync(120_000);
  expect([workers.length, workers[0]!.ended]).toEqual([1, true]);
});

test('one that refuses a question goes on with the next', async () => {
  const { ask, workers } = asked();
  const answers = Promise.allSettled([ask('bad'), ask('b')]);
  await vi.advanceTimersByTimeAsync(100);
  expect(await answers).toMatchObject([{ status: 'rejected' }, { value: 'b' }]);
  await vi.advanceTimersByTimeAsync(60_000);
  expect(workers).toHaveLength(1);
});
