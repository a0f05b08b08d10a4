/** Changes on a whole bench: compared beside the page, both versions side by side, accepted, kept. The comparison answers by hand. */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchOf, NOTHING_THERE, VISIT, type Sent } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import type { Compared } from '@/core/compare/compare';
import type { Difference } from '@/core/compare/difference';
import type { FormerVersion } from '@/core/workspace/release-changes';
import * as compareInBrowser from '@/workers/compare-in-browser';
import type { CompareListener } from '@/workers/compare-watched';
import { WorkFailed } from '@/workers/watched';
import type { Bench } from '../create-bench';
import { BesidePane } from './beside-pane';
import { ChangesLine } from './line';
import { ChangesTab } from './pane';

const NOW = 'keep(() => {\n  fields.master.required = fields.vessel.value === "Tern";\n});\n';
const THEN = NOW.replace('"Tern"', '"Auk"');
/** The former version called a field otherwise. */
const FORMER: FormerVersion = {
  form: JSON.parse(JSON.stringify(VISIT).replace('"name":"master"', '"name":"captain"')),
  tables: [],
  services: [],
  answering: [],
  sources: [{ name: '10-a.ts', text: THEN.replace('master', 'captain') }],
};
const opening = {
  person: { key: 'mira', name: 'Mira', roles: ['clerk'] },
  record: null,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
};
const DIFFERENCE: Difference = {
  part: 'master',
  aspect: 'required',
  before: false,
  after: true,
  way: { opening, steps: [{ set: 'vessel', to: 'Tern' }] },
  lines: { before: null, after: { behaviour: '10-a', line: 2 } },
  follows: null,
  also: [],
};
const TOLD =
  'Whoever sets Vessel to Tern has to fill in Master. In the former version, Master is not required.';

interface Asked {
  hear: CompareListener;
  stop: AbortSignal;
  request: Parameters<typeof compareInBrowser.compareInWorker>[0];
  done: (compared: Partial<Compared>) => void;
}
const asked: Asked[] = [];
const benches: Pick<Bench, 'spare' | 'changes'>[] = [];

beforeEach(() => {
  asked.length = 0;
  // jsdom lays nothing out.
  Element.prototype.scrollIntoView = vi.fn();
  // Nobody waits until a bench has been quiet for a second.
  const { now } = Date;
  const began = now();
  vi.spyOn(Date, 'now').mockImplementation(() => began + 20 * (now() - began));
  vi.spyOn(compareInBrowser, 'compareInWorker').mockImplementation(
    (request, hear, stop) =>
      new Promise((resolve, reject) => {
        stop.addEventListener('abort', () => reject(new WorkFailed('It was stopped.')));
        asked.push({
          request,
          hear: hear!,
          stop,
          done: (compared) =>
            resolve({ differences: [], sessions: 600, lines: [], cut: false, ...compared }),
        });
      }),
  );
});
afterEach(() => {
  for (const bench of benches.splice(0)) {
    bench.changes.end();
    bench.spare.end();
  }
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

async function tabOf(release: number | null = 1) {
  const accepted = vi.fn();
  const { bench, sent } = benchOf({
    behaviours: { '10-a.ts': NOW },
    release,
    compiles: true,
    answers: ({ method, path, body }: Sent) => {
      const last = path.split('/').at(-1)!.split('?')[0]!;
      if (last === 'versions')
        return {
          status: 200,
          body: {
            releases: [{ number: 1, at: '2031-05-02T09:00:00Z', by: 'mira' }],
            revisions: [
              { at: '2031-05-02T10:00:00.5Z', kind: 'behaviour', name: '10-a.ts', by: 'mira' },
            ],
            right: null,
          },
        };
      if (path.includes('/versions/')) return { status: 200, body: FORMER };
      if (method === 'POST' && last === 'accepted') {
        accepted(body);
        return {
          status: 201,
          body: { key: 'k1', accepted: body, by: 'mira', at: '2031-05-02T11:00:00Z' },
        };
      }
      if (method === 'POST' && last === 'scenarios')
        return { status: 201, body: { name: 'kept', scenario: body, revision: 1 } };
      return { status: 200, body: NOTHING_THERE[`${method} ${last}`] ?? { revision: 2 } };
    },
  });
  benches.push(bench);
  vi.stubGlobal('navigator', { hardwareConcurrency: 2 });
  await bench.form.begin();
  drawn(
    <>
      <ChangesTab bench={bench} />
      <ChangesLine bench={bench} />
    </>,
  );
  bench.spare.begin();
  await act(async () => bench.changes.begin());
  return { bench, sent, accepted };
}

async function comparison(count: number): Promise<Asked> {
  await waitFor(() => expect(asked.length).toBe(count));
  return asked.at(-1)!;
}
const status = () => screen.getAllByRole('status')[0]!.textContent;
const button = (name: string | RegExp) => screen.getByRole('button', { name });

test('after an edit both versions are used, and what differs is listed as it comes', async () => {
  await tabOf();
  const first = await comparison(1);
  expect(first.request.before.sources).toEqual(FORMER.sources);
  expect(first.request.after.sources).toEqual([{ name: '10-a.ts', text: NOW }]);
  act(() => first.hear(40, [DIFFERENCE]));
  expect(status()).toBe('Using both versions: 40 sessions so far.');
  expect(screen.getByRole('list', { name: 'What changed for people' }).textContent).toContain(TOLD);
  await act(async () =>
    first.done({
      differences: [DIFFERENCE],
      lines: [
        { script: '10-a', line: 2, in: 'after', isReached: true },
        { script: '10-a', line: 9, in: 'after', isReached: false },
      ],
    }),
  );
  expect(status()).toBe('1 difference in 600 sessions, which reached 1 of 2 changed lines.');
  expect(screen.getByText(/No session reached/).textContent).toContain('line 9');
  expect(button('For people: 1 change since release 1')).toBeTruthy();
});

test('it gives way to whoever uses the form, and is begun again', async () => {
  const { bench } = await tabOf();
  const first = await comparison(1);
  await act(() => bench.form.step({ set: 'vessel', to: 'Auk' }));
  expect(first.stop.aborted).toBe(true);
  const second = await comparison(2);
  await act(async () => second.done({ differences: [DIFFERENCE] }));
  expect(status()).toContain('1 difference in 600 sessions');
});

test('after a further edit what was found in the code before says nothing', async () => {
  const { bench } = await tabOf();
  const first = await comparison(1);
  act(() => bench.changes.changed());
  act(() => first.hear(99, [DIFFERENCE]));
  expect(screen.getByRole('list', { name: 'What changed for people' }).textContent).toBe('');
});

test('what is compared with can be another revision, and without a release nothing is compared', async () => {
  await tabOf(null);
  expect(status()).toBe('The form has no release yet. Choose what to compare it with.');
  const since = screen.getByLabelText('Since');
  await waitFor(() => expect(within(since).getAllByRole('option').length).toBe(3));
  expect(asked).toEqual([]);
  fireEvent.change(since, { target: { value: 'moment 2031-05-02T10:00:00.5Z' } });
  await comparison(1);
});

test('accepted as meant, a difference is listed no more, and can be taken back', async () => {
  const { bench, accepted } = await tabOf();
  const first = await comparison(1);
  await act(async () => first.done({ differences: [DIFFERENCE] }));
  await act(async () => fireEvent.click(button(`Accept as meant: ${TOLD}`)));
  await waitFor(() => expect(accepted).toHaveBeenCalledTimes(1));
  expect(accepted).toHaveBeenCalledWith({
    part: 'master',
    aspect: 'required',
    before: false,
    after: true,
    lines: { before: null, after: 'fields.master.required = fields.vessel.value === "Tern";' },
  });
  expect(screen.getByRole('list', { name: 'What changed for people' }).textContent).toBe('');
  expect(await screen.findByText('1 accepted as meant')).toBeTruthy();
  expect(button('For people: nothing changed since release 1')).toBeTruthy();
  await act(async () => fireEvent.click(screen.getByText('take back')));
  await waitFor(() => expect(bench.changes.store.getState().accepted).toEqual([]));
  expect(button(`Accept as meant: ${TOLD}`)).toBeTruthy();
});

test('either side is kept as a scenario', async () => {
  const { sent } = await tabOf();
  const first = await comparison(1);
  await act(async () => first.done({ differences: [DIFFERENCE] }));
  await act(async () => fireEvent.click(button(`Keep as it was: ${TOLD}`)));
  await waitFor(() =>
    expect(
      sent.filter(({ method, path }) => method === 'POST' && path.endsWith('scenarios')),
    ).toMatchObject([
      { body: { steps: [{ set: 'vessel' }, { expect: { master: { required: false } } }] } },
    ]),
  );
});

test('both versions stand side by side at that moment, and what is done in one is done in the other', async () => {
  const { bench } = await tabOf();
  const first = await comparison(1);
  await act(async () => first.done({ differences: [DIFFERENCE] }));
  await act(async () => fireEvent.click(button(`Both side by side: ${TOLD}`)));
  await waitFor(() => expect(bench.changes.store.getState().beside).not.toBe(null));
  expect(bench.screen.store.getState().pane).toBe('beside');
  drawn(<BesidePane bench={bench} />);
  const pane = await screen.findByRole('region', { name: 'The former version' });
  await waitFor(() =>
    expect(pane.textContent).toContain(
      'Master is required; in the former version it is not required.',
    ),
  );
  const { session } = bench.changes.store.getState().beside!;
  const formerly = () => session.state.steps;
  // Done in the live form.
  await act(() => bench.form.step({ set: 'vessel', to: 'Auk' }));
  await waitFor(() => expect(session.state.answers).toHaveLength(3));
  await waitFor(() =>
    expect(pane.textContent).toContain('Master is not required; in the former version'),
  );
  // Done in the former version, where the field has another name.
  const master = within(pane).getByLabelText(/^Master/);
  fireEvent.change(master, { target: { value: 'Ida' } });
  fireEvent.blur(master);
  await waitFor(() =>
    expect(bench.form.session.state.steps.at(-1)).toMatchObject({ set: 'master', to: 'Ida' }),
  );
  await waitFor(() => expect(formerly().at(-1)).toMatchObject({ set: 'captain', to: 'Ida' }));
  // Looked at in the past of both.
  act(() => bench.form.session.lookAt(1));
  expect(session.state.at).toBe(1);
  act(() => bench.form.session.lookAt(3));
  // Taken back in both.
  await act(() => bench.form.undo());
  await waitFor(() => expect(formerly()).toHaveLength(2));
  await act(async () => bench.changes.closeBoth());
  expect(bench.changes.store.getState().beside).toBe(null);
});
