import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import type { Difference } from '@/core/compare/difference';
import type { FormVersions } from '@/core/workspace/versions';
import type { ReleaseChanges } from '@/core/workspace/release-changes';
import * as compareInBrowser from '@/workers/compare-in-browser';
import { WorkFailed } from '@/workers/watched';
import { ReleaseDialog } from './dialog';

afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const CHANGES: ReleaseChanges = {
  next: 3,
  last: { number: 2, madeBy: 'mira', reason: null, failing: [], again: null },
  former: null,
  differences: [
    { file: 'forms/visit/form.json', says: 'Vessel is required now' },
    { file: 'forms/visit/behaviours/10-a.ts', says: 'changed' },
  ] as ReleaseChanges['differences'],
  scripts: [],
  failing: [],
};

/** The dialog, with what is asked of the server. */
async function dialog(
  changes: Partial<ReleaseChanges>,
  made = { status: 200, says: '' },
  releases: FormVersions['releases'] = [],
) {
  const { bench, sent } = benchOf({
    answers: ({ method, path }) =>
      path.includes('/kept')
        ? { status: 200, body: { fillings: [], all: 0 } }
        : path.endsWith('/versions')
          ? { status: 200, body: { releases, revisions: [], right: null } }
          : method === 'GET'
            ? { status: 200, body: { ...CHANGES, ...changes } }
            : {
                status: made.status,
                body: made.status === 200 ? { number: 3 } : { says: made.says },
              },
  });
  const done = vi.fn();
  drawn(<ReleaseDialog bench={bench} onDone={done} />);
  await screen.findByText('Make release 3', { selector: 'button' });
  const make = screen.getByRole<HTMLButtonElement>('button', { name: 'Make release 3' });
  const posted = () => sent.filter(({ method }) => method === 'POST').map(({ body }) => body);
  return { bench, done, make, posted };
}

test('says what changed since the last release, in words, and makes the next', async () => {
  const { bench, done, make, posted } = await dialog({});
  expect(screen.getByText('Since release 2')).toBeTruthy();
  expect(screen.getByText(/Vessel is required now/)).toBeTruthy();
  expect(screen.getByText('✓ all scenarios pass')).toBeTruthy();
  fireEvent.click(make);
  await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
  expect(posted()).toEqual([{ reason: null }]);
  expect(bench.release.store.getState().newest).toBe(3);
});

test('what is compared as text is not said in words as well', async () => {
  await dialog({ scripts: [{ name: 'behaviours/10-a.ts', before: 'log(1);', after: 'log(2);' }] });
  const list = screen.getAllByRole('listitem').map(({ textContent }) => textContent);
  expect(list).toEqual(['Vessel is required now form.json']);
  expect(screen.getByText('behaviours/10-a.ts').parentElement!.textContent).toContain('changed');
});

test('the first release and an unchanged form are said as what they are', async () => {
  await dialog({ last: null, differences: [] });
  expect(screen.getByText('It is the first release of this form.')).toBeTruthy();
  expect(screen.queryByText('Nothing has changed.')).toBeNull();
});

test('nothing has changed where nothing differs', async () => {
  await dialog({ differences: [] });
  expect(screen.getByText('Nothing has changed.')).toBeTruthy();
});

test('while a scenario fails a reason is needed, and goes with the release', async () => {
  const { make, posted, done } = await dialog({ failing: ['Dues: expected 3, was 4'] });
  expect(screen.getByText(/1 scenario fails/)).toBeTruthy();
  expect(make.disabled).toBe(true);
  const reason = screen.getByLabelText('Why it is released all the same');
  fireEvent.change(reason, { target: { value: '   ' } });
  expect(make.disabled).toBe(true);
  fireEvent.change(reason, { target: { value: ' The tariff comes tomorrow. ' } });
  fireEvent.click(make);
  await waitFor(() => expect(done).toHaveBeenCalled());
  expect(posted()).toEqual([{ reason: 'The tariff comes tomorrow.' }]);
});

test('a refused release stays open and says why', async () => {
  const { make, done } = await dialog({}, { status: 409, says: 'Somebody saved meanwhile.' });
  fireEvent.click(make);
  expect(await screen.findByText('Somebody saved meanwhile.')).toBeTruthy();
  expect(done).not.toHaveBeenCalled();
});

test('says first what changes for people, as it is found, and stops when the dialog goes', async () => {
  const asked = vi.spyOn(compareInBrowser, 'compareInWorker');
  let end = (_compared: Awaited<ReturnType<typeof compareInBrowser.compareInWorker>>) => undefined;
  asked.mockImplementation(
    (_request, _progress, stop) =>
      new Promise((resolve, reject) => {
        end = (compared) => void resolve(compared);
        stop.addEventListener('abort', () => reject(new WorkFailed('It was stopped.')));
      }),
  );
  const former = { form: VISIT, tables: [], services: [], answering: [], sources: [] };
  await dialog({ former });
  await waitFor(() => expect(asked).toHaveBeenCalledTimes(1));
  const [request, progress, stop] = asked.mock.calls[0]!;
  expect(request.before.material).toMatchObject({ form: VISIT, traced: true });
  expect(screen.getByRole('status').textContent).toBe('Using both versions: 0 sessions so far.');
  const difference: Difference = {
    part: 'vessel',
    aspect: 'required',
    before: false,
    after: true,
    way: {
      opening: {
        person: { key: 'mira', name: 'Mira', roles: [] },
        record: null,
        launch: {},
        clock: 0,
        seed: 1,
        newId: 'new',
      },
      steps: [],
    },
    lines: { before: null, after: null },
    follows: null,
    also: [{ part: '@form', aspect: 'submit' }],
  };
  const told =
    'Whoever opens the form has to fill in Vessel. In the former version, Vessel is not required. With it: submitting.';
  act(() => progress(40, [difference]));
  expect(screen.getByText(/has to fill in Vessel/).textContent).toBe(told);
  expect(screen.getByRole('status').textContent).toBe('Using both versions: 40 sessions so far.');
  await act(async () => end({ differences: [difference], sessions: 1200, lines: [], cut: false }));
  expect(screen.getByRole('status').textContent).toBe('1 difference in 1,200 sessions.');
  expect(stop.aborted).toBe(false);
  cleanup();
  expect(stop.aborted).toBe(true);
});

test('an earlier release is put back with a reason', async () => {
  const releases = [
    {
      number: 2,
      at: '2031-05-02T09:00:00Z',
      by: 'mira',
      reason: 'The tariff is late.',
      again: null,
    },
    { number: 1, at: '2031-05-01T09:00:00Z', by: null, reason: null, again: null },
  ];
  const { posted, done, bench } = await dialog({ differences: [] }, undefined, releases);
  fireEvent.click(screen.getByText('All releases'));
  fireEvent.click(await screen.findByText('put back release 1…'));
  expect(screen.getByText(/release 2, .* by Mira: “The tariff is late.”/)).toBeTruthy();
  const why = screen.getByLabelText('Why it is put back');
  fireEvent.submit(why);
  expect(posted()).toEqual([]);
  fireEvent.change(why, { target: { value: ' Nobody can submit. ' } });
  fireEvent.submit(why);
  await waitFor(() => expect(done).toHaveBeenCalled());
  expect(posted()).toEqual([{ again: 1, reason: 'Nobody can submit.' }]);
  expect(bench.changes.store.getState().since).toEqual({ is: 'release', number: 3 });
});

test('nothing is compared where nothing changed', async () => {
  const asked = vi.spyOn(compareInBrowser, 'compareInWorker');
  const former = { form: VISIT, tables: [], services: [], answering: [], sources: [] };
  await dialog({ former, differences: [] });
  expect(screen.getByText('Nothing has changed.')).toBeTruthy();
  expect(asked).not.toHaveBeenCalled();
});
