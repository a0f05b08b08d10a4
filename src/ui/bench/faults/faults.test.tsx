/** Faults on a whole bench: rounds that give way, findings that are opened, kept and answered. The search answers by hand. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import type { Finding } from '@/core/explore/finding';
import type { Searched } from '@/core/explore/search';
import { DEFAULT_CLOCK } from '@/core/scenario/opening';
import type { SearchRequest } from '@/workers/search-calls';
import * as searchInBrowser from '@/workers/search-in-browser';
import type { SearchListener } from '@/workers/search-watched';
import { WorkFailed } from '@/workers/watched';
import type { Bench } from '../create-bench';
import { FaultsTab } from './pane';
import { ROUNDS } from './faults';

interface Asked {
  request: SearchRequest;
  listener: SearchListener;
  stop: AbortSignal;
  done: (findings: readonly Finding[]) => void;
  fails: (why: string) => void;
}
const asked: Asked[] = [];

beforeEach(() => {
  // Nobody waits until a bench has been quiet for a second.
  const { now } = Date;
  const began = now();
  vi.spyOn(Date, 'now').mockImplementation(() => began + 20 * (now() - began));
  vi.spyOn(searchInBrowser, 'searchInWorker').mockImplementation(
    (request, listener, stop) =>
      new Promise<Searched>((resolve, reject) => {
        stop.addEventListener('abort', () => reject(new WorkFailed('It was stopped.')));
        asked.push({
          request,
          listener,
          stop,
          done: (findings) =>
            resolve({
              findings,
              sessions: request.sessions,
              steps: 0,
              cut: false,
              reached: { fields: 2, filled: 1, conditions: 3, bothWays: 2, unseen: ['master'] },
            }),
          fails: (why) => reject(new WorkFailed(why)),
        });
      }),
  );
  asked.length = 0;
  localStorage.clear();
});
const benches: Pick<Bench, 'spare'>[] = [];
afterEach(() => {
  // One that goes on would search in the next test.
  for (const bench of benches.splice(0)) bench.spare.end();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const CODE =
  '/** Left: x. */\non.change(fields.vessel, () => {\n  fields.master.required = true;\n});\n';
const opening = {
  person: { key: 'mira', name: 'Mira', roles: ['clerk'] },
  record: null,
  launch: {},
  clock: Date.parse(DEFAULT_CLOCK),
  seed: 1,
  newId: 'new',
};
const LEFT: Finding = {
  kind: 'not-back',
  level: 'wrong',
  part: 'master',
  aspect: 'required',
  lines: [{ behaviour: '10-left', line: 3 }],
  says: 'master is required',
  way: {
    opening,
    steps: [
      { set: 'vessel', to: 'Tern' },
      { set: 'vessel', to: null },
    ],
  },
  other: { opening, steps: [] },
  met: { one: true, other: false },
  also: [],
};
const HINT: Finding = { ...LEFT, kind: 'one-sided', level: 'may', part: '10-left:2', met: null };

/** The last search that was asked for, once there are so many. */
async function search(count: number): Promise<Asked> {
  await waitFor(() => expect(asked.length).toBe(count));
  return asked.at(-1)!;
}

async function tabOf(cores = 2) {
  const { bench, sent } = benchOf({
    behaviours: { '10-left.ts': CODE },
    answers: ({ method, path, body }) =>
      path.includes('/kept?')
        ? { status: 200, body: { fillings: [], all: 0 } }
        : method === 'POST'
          ? { status: 201, body: { name: 'kept.json', scenario: body, revision: 1 } }
          : { status: 200, body: { revision: 2 } },
  });
  benches.push(bench);
  vi.stubGlobal('navigator', { hardwareConcurrency: cores });
  await bench.form.begin();
  drawn(<FaultsTab bench={bench} />);
  bench.spare.begin();
  act(() => bench.faults.begin());
  return { bench, sent };
}
const status = () => screen.getByRole('status').textContent;
const button = (name: RegExp) => screen.getByRole('button', { name });

test('rounds follow each other with seeds of their own, and what they find is listed as it comes', async () => {
  await tabOf();
  const first = await search(1);
  expect(first.request).toMatchObject({ seed: 1, sessions: ROUNDS[0], known: [] });
  act(() => first.listener.progress!(40, [LEFT]));
  expect(status()).toBe('40 sessions: 1 wrong so far.');
  expect(screen.getByRole('list', { name: 'Wrong' }).textContent).toContain(
    'Whoever sets Vessel to Tern, then empties Vessel has to fill in Master.',
  );
  first.done([LEFT, HINT]);
  expect((await search(2)).request).toMatchObject({ seed: 2, sessions: ROUNDS[1] });
  expect(screen.getByText('1 hint, which may well be meant')).toBeTruthy();
  expect(
    screen.getByText(/1 of 2 fields filled in, 2 of 3 conditions met both ways\./).textContent,
  ).toContain('Never on screen: Master.');
});

test('it gives way to whoever uses the form, and the round is begun again', async () => {
  const { bench } = await tabOf();
  const first = await search(1);
  await act(() => bench.form.step({ set: 'vessel', to: 'Auk' }));
  expect(first.stop.aborted).toBe(true);
  expect((await search(2)).request).toMatchObject({ seed: 1, sessions: ROUNDS[0] });
});

test('after an edit what was found is looked at first, and what is gone goes at once', async () => {
  const { bench } = await tabOf();
  (await search(1)).done([LEFT]);
  await search(2);
  act(() => bench.faults.changed());
  expect(status()).toContain('looking at these again');
  const again = await search(3);
  expect(again.request).toMatchObject({ seed: 1, known: [LEFT] });
  act(() => again.listener.again!([]));
  expect(screen.getByRole('list', { name: 'Wrong' }).textContent).toBe('');
});

test('stopped, it stays stopped for the next bench; and begins by itself only where there is a core to spare', async () => {
  const { bench } = await tabOf();
  await search(1);
  fireEvent.click(button(/^Stop$/));
  await waitFor(() => expect(button(/^Search$/)).toBeTruthy());
  bench.spare.end();
  const next = benchOf({ behaviours: { '10-left.ts': CODE } }).bench;
  benches.push(next);
  vi.stubGlobal('navigator', { hardwareConcurrency: 2 });
  next.spare.begin();
  next.faults.begin();
  expect(next.faults.store.getState().stopped).toBe(true);
  localStorage.clear();
  vi.stubGlobal('navigator', { hardwareConcurrency: 1 });
  next.spare.begin();
  next.faults.begin();
  expect(next.faults.store.getState().stopped).toBe(true);
});

test('a search that fails says why and is not begun again by itself', async () => {
  await tabOf();
  (await search(1)).fails('A behaviour kept the machine busy for too long.');
  await waitFor(() => expect(screen.getByText(/kept the machine busy/)).toBeTruthy());
  fireEvent.click(button(/^Search$/));
  await search(2);
});

test('a finding is opened, kept as a scenario, and answered above its line with a reason', async () => {
  const { bench, sent } = await tabOf();
  (await search(1)).done([LEFT]);
  await search(2);
  await act(async () => fireEvent.click(button(/^Open: Whoever/)));
  await waitFor(() => expect(bench.form.session.state.steps).toHaveLength(2));
  await act(async () => fireEvent.click(button(/^Keep as a scenario/)));
  await waitFor(() => expect(sent.some(({ path }) => path.endsWith('/scenarios'))).toBe(true));
  expect(sent.find(({ path }) => path.endsWith('/scenarios'))!.body).toMatchObject({
    title: 'Master is not required after Vessel Tern, Vessel nothing',
    steps: [...LEFT.way.steps, { expect: { master: { required: false } } }],
  });
  fireEvent.click(button(/^This is meant/));
  fireEvent.change(screen.getByLabelText('Why it is meant'), { target: { value: ' it  stays ' } });
  fireEvent.click(button(/^Write it into the code$/));
  expect(bench.code.store.getState().behaviours[0]!.text.split('\n')[2]).toBe(
    '  // tavro: meant, not-back: it stays',
  );
});

test('a scenario that was kept is opened, unless somebody has gone elsewhere meanwhile', async () => {
  const { bench } = await tabOf();
  (await search(1)).done([LEFT]);
  await search(2);
  const places = () => [bench.screen.store.getState().pane, bench.tests.store.getState().tab];
  await act(async () => {
    fireEvent.click(button(/^Keep as a scenario/));
    bench.tests.open('mutation');
    await waitFor(() => expect(bench.tests.store.getState().scenarios).toHaveLength(1));
  });
  expect(places()).toEqual(['tests', 'mutation']);
  await act(async () => fireEvent.click(button(/^Keep as a scenario/)));
  await waitFor(() => expect(places()).toEqual(['tests', 'scenarios']));
});

test('what is answered in the code is listed apart', async () => {
  const { bench } = await tabOf();
  const first = await search(1);
  act(() =>
    bench.code.edit(
      '10-left.ts',
      CODE.replace('  fields', '  // tavro: meant, not-back: it stays\n  fields'),
    ),
  );
  act(() =>
    first.listener.progress!(10, [{ ...LEFT, lines: [{ behaviour: '10-left', line: 4 }] }]),
  );
  expect(screen.getByText('1 answered in the code: meant')).toBeTruthy();
  expect(screen.getByText('Meant: it stays')).toBeTruthy();
  expect(screen.getByRole('list', { name: 'Wrong' }).textContent).toBe('');
});
