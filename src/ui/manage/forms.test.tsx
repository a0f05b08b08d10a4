import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn, router } from '../../../tests/support/drawn';
import type { FormRow } from '@/core/workspace/overview';
import * as checkWorkspace from '../check-workspace';
import * as faultSearch from './fault-search';
import { Forms } from './forms';

const checking = {
  now: { over: true, says: null as string | null, done: 0, of: 0, cutShort: [] as never[] },
  asked: [] as boolean[],
  again: 0,
};
beforeEach(() => {
  vi.spyOn(checkWorkspace, 'useWorkspaceCheck').mockImplementation((asked) => {
    checking.asked.push(asked);
    return { problems: [], forms: [], ...checking.now, runAgain: () => checking.again++ };
  });
  // It asks the server by itself; it has tests of its own.
  vi.spyOn(faultSearch, 'FaultSearch').mockReturnValue(<></>);
  checking.now = { over: true, says: null, done: 0, of: 0, cutShort: [] };
  checking.asked = [];
  checking.again = 0;
});

const row = (name: string, title: string, more: Partial<FormRow> = {}): FormRow => ({
  name,
  title,
  revision: 3,
  behaviours: 1,
  scenarios: 2,
  run: { passed: 2, failed: 0, at: '2031-05-02T09:00:00Z', current: true, coverage: null },
  check: { errors: 0, warnings: 0, current: true },
  found: null,
  records: { count: 1, more: false },
  release: null,
  touched: { at: '2031-05-01T09:00:00Z', by: 'mira' },
  ...more,
});
const FORMS = [row('visit', 'Berth visit'), row('crew', 'Crew change'), row('waste', 'Waste')];

function page(forms = FORMS, removed: { name: string; title: string }[] = [], refuses = false) {
  const sent = answering(({ path }) =>
    refuses
      ? { status: 409, body: { says: 'Somebody saved it meanwhile.' } }
      : path.endsWith('/copies')
        ? { body: { name: 'crew' } }
        : { body: { name: 'made' } },
  );
  drawn(
    <Forms
      workspace="Harbour"
      people={[{ key: 'mira', name: 'Mira', roles: ['clerk'] }]}
      person="mira"
      forms={forms}
      removed={removed}
    />,
  );
  return { sent };
}

const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });
const titles = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((one) => within(one).getAllByRole('link')[0]!.textContent);
const cells = (at: number) =>
  within(screen.getAllByRole('row')[at + 1]!)
    .getAllByRole('cell')
    .map((one) => one.textContent);

test('faults that the last search has found stand in the row of their form', () => {
  page([
    row('a', 'A', { found: { wrong: 2, current: true } }),
    row('b', 'B', { found: { wrong: 1, current: false } }),
    row('c', 'C', { found: { wrong: 0, current: true } }),
  ]);
  expect([0, 1, 2].map((at) => cells(at)[1])).toEqual([
    '✓ no problems× 2 faults found',
    '✓ no problems× 1 fault foundchanged since',
    '✓ no problems',
  ]);
});

test('forms are found by title or technical name, and counted', () => {
  page();
  const search = screen.getByRole('searchbox');
  fireEvent.change(search, { target: { value: 'VISIT' } });
  expect(titles()).toEqual(['Berth visit']);
  expect(screen.getByText('1 of 3 forms')).toBeTruthy();
  fireEvent.change(search, { target: { value: 'nothing' } });
  expect(screen.getByText('No form is called that.')).toBeTruthy();
});

test('a head sorts, and pressed again the other way round', () => {
  page([
    row('a', 'A', { records: { count: 1, more: false } }),
    row('b', 'B', { records: { count: 9, more: false } }),
  ]);
  const sorted = (name: string) =>
    screen.getByRole('columnheader', { name: new RegExp(`^${name}`) }).getAttribute('aria-sort');
  expect([titles(), sorted('Form')]).toEqual([['A', 'B'], 'ascending']);
  fireEvent.click(button(/^Form/));
  expect([titles(), sorted('Form')]).toEqual([['B', 'A'], 'descending']);
  fireEvent.click(button(/^Records/));
  expect([titles(), sorted('Records'), sorted('Form')]).toEqual([['B', 'A'], 'descending', 'none']);
  fireEvent.click(button(/^Records/));
  expect([titles(), sorted('Records')]).toEqual([['A', 'B'], 'ascending']);
});

test.each<[Partial<FormRow>, number, string]>([
  [{ check: null }, 1, 'not checked yet'],
  [{ check: { errors: 0, warnings: 0, current: true } }, 1, '✓ no problems'],
  [{ check: { errors: 1, warnings: 2, current: true } }, 1, '× 1 error, 2 warnings'],
  [{ check: { errors: 0, warnings: 1, current: false } }, 1, '! 1 warningchanged since'],
  [{ scenarios: 0 }, 2, 'none'],
  [{ run: null }, 2, '2, not run yet'],
  [
    { run: { passed: 1, failed: 1, at: '2031-05-02T09:00:00Z', current: true, coverage: 90 } },
    2,
    '× 1 of 2 passed2031-05-02 · 90 % reached',
  ],
  [
    { run: { passed: 2, failed: 0, at: '2031-05-02T09:00:00Z', current: false, coverage: null } },
    2,
    '✓ 2 of 2 passed2031-05-02, changed since',
  ],
  [{ release: null }, 3, 'none yetmake one on the bench'],
  [
    { release: { number: 4, createdAt: '2031-05-02T09:00:00Z', changes: null, forPeople: null } },
    3,
    '4, 2031-05-02 · fill innothing changed since',
  ],
  [
    {
      release: {
        number: 4,
        createdAt: '2031-05-02T09:00:00Z',
        changes: { structure: true, behaviours: ['a'], tables: [], services: [] },
        forPeople: { count: 2, current: false },
      },
    },
    3,
    '4, 2031-05-02 · fill inchanged since: structure and 1 behaviour2 changes for peoplechanged since',
  ],
  [{ touched: { at: '2031-05-01T09:00:00Z', by: 'mira' } }, 5, '2031-05-01Mira'],
  [{ touched: { at: '2031-05-01T09:00:00Z', by: 'gone' } }, 5, '2031-05-01gone'],
])('%j is told in words', (more, at, says) => {
  page([row('visit', 'Visit', more)]);
  expect(cells(0)[at]).toBe(says);
});

test.each<[string, Partial<FormRow>, boolean]>([
  ['is checked', {}, false],
  ['was never checked', { check: null }, true],
  ['has changed since', { check: { errors: 0, warnings: 0, current: false } }, true],
  ['has scenarios that were not run', { run: null }, true],
  ['has no scenarios to run', { scenarios: 0, run: null }, false],
])('a form that %s is checked when the page opens: only where it has to be', (_, more, needed) => {
  page([row('visit', 'Visit', more)]);
  expect(checking.asked[0]).toBe(needed);
});

test('while it checks it says how far it is, and what stands in the way', () => {
  checking.now = { over: false, says: null, done: 1, of: 2, cutShort: [] };
  page([row('visit', 'Visit', { check: null }), row('crew', 'Crew'), row('waste', 'Waste')]);
  expect(screen.getByText('Checking: 1 of 3 forms…')).toBeTruthy();
  expect(button('Run again').disabled).toBe(true);
});

test('what could not be checked is said, and can be run again', () => {
  checking.now = { over: false, says: 'The server is out of reach.', done: 0, of: 0, cutShort: [] };
  page([row('visit', 'Visit', { check: null })]);
  expect(screen.getByText('The server is out of reach.')).toBeTruthy();
  fireEvent.click(button('Run again'));
  expect(checking.again).toBe(1);
});

test('once everything is checked the page is drawn anew', () => {
  page();
  expect(router.refresh).toHaveBeenCalledTimes(1);
});

test('a form is renamed by Enter, left by Esc, and not sent where it is as before or empty', async () => {
  const { sent } = page();
  const rename = () => fireEvent.click(button('Rename Crew change'));
  const line = () => screen.getByLabelText<HTMLInputElement>('Title of Crew change');
  rename();
  fireEvent.keyDown(line(), { key: 'Escape' });
  expect(screen.queryByLabelText('Title of Crew change')).toBeNull();
  rename();
  fireEvent.change(line(), { target: { value: ' ' } });
  fireEvent.keyDown(line(), { key: 'Enter' });
  expect(line()).toBeTruthy();
  fireEvent.change(line(), { target: { value: 'Crew change ' } });
  fireEvent.keyDown(line(), { key: 'Enter' });
  expect(screen.queryByLabelText('Title of Crew change')).toBeNull();
  expect(sent).toEqual([]);
  rename();
  fireEvent.change(line(), { target: { value: 'Crew' } });
  fireEvent.click(button('Rename'));
  await waitFor(() => expect(screen.queryByLabelText('Title of Crew change')).toBeNull());
  expect(sent).toEqual([{ method: 'PUT', path: '/api/forms/crew', body: { title: 'Crew' } }]);
});

test('a copy asks for a title of its own', async () => {
  const { sent } = page();
  fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'visit' } });
  fireEvent.click(button('Copy Berth visit'));
  await screen.findByLabelText('Title of Crew change');
  expect(sent[0]).toMatchObject({
    path: '/api/forms/visit/copies',
    body: { title: 'Copy of Berth visit' },
  });
  expect(titles()).toHaveLength(3);
});

test('a removed form can be brought back at once, and from the list of those', async () => {
  const { sent } = page(FORMS, [{ name: 'old', title: 'Old' }]);
  fireEvent.click(button('Remove Waste'));
  await screen.findByText(/Waste was removed/);
  expect(sent[0]).toMatchObject({ method: 'DELETE', path: '/api/forms/waste?from=3' });
  fireEvent.click(button('Undo'));
  await screen.findByText(/Waste is back/);
  expect(screen.getByText('1 removed form')).toBeTruthy();
  fireEvent.click(screen.getByLabelText('Restore Old'));
  await screen.findByText(/Old is back/);
  expect(sent.slice(1).map(({ path }) => path)).toEqual([
    '/api/forms/waste/restore',
    '/api/forms/old/restore',
  ]);
});

test('what is refused is said, and nothing else happens', async () => {
  page(FORMS, [], true);
  fireEvent.click(button('Remove Waste'));
  expect((await screen.findByRole('alert')).textContent).toContain('Somebody saved it meanwhile.');
  expect(screen.queryByText(/was removed/)).toBeNull();
  fireEvent.click(button('Copy Waste'));
  await waitFor(() => expect(screen.queryByText(/was copied/)).toBeNull());
});

test('a new form begins with its title, and goes to its structure', async () => {
  const { sent } = page([]);
  expect(screen.getByText(/has no form yet/)).toBeTruthy();
  expect(screen.queryByRole('searchbox')).toBeNull();
  expect(screen.queryByRole('button', { name: 'Run again' })).toBeNull();
  const line = screen.getByLabelText('Title of a new form');
  expect(document.activeElement).toBe(line);
  fireEvent.change(line, { target: { value: '  ' } });
  expect(button('New form').disabled).toBe(true);
  fireEvent.keyDown(line, { key: 'Enter' });
  fireEvent.change(line, { target: { value: 'Permit' } });
  fireEvent.keyDown(line, { key: 'x' });
  fireEvent.keyDown(line, { key: 'Enter' });
  await waitFor(() => expect(router.push).toHaveBeenCalledTimes(1));
  expect(router.push).toHaveBeenCalledWith('/bench/made?structure=first_field');
  expect(sent).toEqual([{ method: 'POST', path: '/api/forms', body: { title: 'Permit' } }]);
});
