import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn, router } from '../../../tests/support/drawn';
import type { WorkspaceRow } from '@/core/workspace/workspaces';
import { Workspaces } from './workspaces';

const assign = vi.fn();
beforeEach(() => {
  vi.clearAllMocks();
  // jsdom goes nowhere.
  vi.stubGlobal('location', { ...location, assign, pathname: '/workspaces' });
});
afterEach(() => vi.unstubAllGlobals());

const row = (name: string, more: Partial<WorkspaceRow> = {}): WorkspaceRow => ({
  name,
  title: name.toUpperCase(),
  first: false,
  archived: false,
  folder: null,
  forms: 2,
  errors: 0,
  warnings: 0,
  failing: 0,
  unchecked: 0,
  changedAt: '2031-05-02T09:00:00Z',
  ...more,
});
const folder = (more: Partial<NonNullable<WorkspaceRow['folder']>> = {}) => ({
  path: '/srv/harbour',
  kept: true,
  wrong: 0,
  says: [],
  ...more,
});

function page(
  workspaces: WorkspaceRow[],
  more: Partial<Parameters<typeof Workspaces>[0]> = {},
  answer: { status?: number; body?: unknown } = { body: { name: 'made' } },
) {
  const sent = answering(() => answer);
  drawn(<Workspaces workspaces={workspaces} removed={[]} offered={[]} {...more} />);
  return { sent };
}

const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });
const cells = (at: number) => screen.getAllByRole('cell')[at]!.textContent;

test.each<[Partial<WorkspaceRow>, string]>([
  [{}, '✓ '],
  [{ errors: 1 }, '× 1 error'],
  [{ warnings: 2 }, '! 2 warnings'],
  [{ failing: 1 }, '× 1 failing scenario'],
])('how a workspace stands, %j, is marked and said', (more, says) => {
  page([row('a', more)]);
  expect(cells(2)).toContain(says);
});

test('one that never changed says so', () => {
  page([row('a', { changedAt: null })]);
  expect(cells(3)).toBe('never');
});

test.each<[ReturnType<typeof folder>, string]>([
  [folder(), 'kept the same as /srv/harbour'],
  [folder({ wrong: 1 }), '× /srv/harbour: one thing to settle, shown on the bench'],
  [
    folder({ wrong: 3, says: ['notes is a link'] }),
    '× /srv/harbour: 3 things to settle, shown on the benchnotes is a link',
  ],
  [
    folder({ kept: false, wrong: 3 }),
    '/srv/harbour is not kept up to date: the app was not started with it',
  ],
])('its folder, %j, is told in words', (of, says) => {
  page([row('a', { folder: of })]);
  expect(cells(0)).toBe(`A/w/a${says}`);
});

test('the first workspace is at the root, and is not removed', () => {
  page([row('a', { first: true }), row('b')]);
  expect(
    screen
      .getAllByRole('link')
      .map((one) => one.getAttribute('href'))
      .filter((to) => to !== '/workspaces'),
  ).toEqual(
    expect.arrayContaining([
      '/',
      '/api/workspace',
      '/take',
      '/w/b',
      '/w/b/api/workspace',
      '/w/b/take',
    ]),
  );
  expect(screen.queryByRole('button', { name: 'Remove A' })).toBeNull();
  expect(button('Remove B')).toBeTruthy();
});

test('a new one is begun with a title and, on wish, a form', async () => {
  const { sent } = page([row('a')]);
  const enter = (label: RegExp, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  expect(button('Make workspace').disabled).toBe(true);
  enter(/^Title of a new workspace/, '  ');
  fireEvent.keyDown(screen.getByLabelText(/^Title of a new workspace/), { key: 'Enter' });
  expect(sent).toEqual([]);
  enter(/^Title of a new workspace/, ' Pier ');
  enter(/^Title of its first form/, ' ');
  fireEvent.keyDown(screen.getByLabelText(/^Title of its first form/), { key: 'x' });
  fireEvent.click(button('Make workspace'));
  await waitFor(() => expect(assign).toHaveBeenCalledExactlyOnceWith('/w/made'));
  expect(sent[0]!.body).toEqual({ title: 'Pier', form: null });
  enter(/^Title of its first form/, ' Permit ');
  fireEvent.keyDown(screen.getByLabelText(/^Title of its first form/), { key: 'Enter' });
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]!.body).toEqual({ title: 'Pier', form: 'Permit' });
});

test.each([
  [{ body: { name: 'zipped' } }, '/w/zipped', null],
  [
    { status: 400, body: { says: 'forms/a/form.json, line 3: no title' } },
    null,
    'harbour.zip was not taken.\nforms/a/form.json, line 3: no title',
  ],
])('a zip becomes a workspace, or says why not: %j', async (answer, to, says) => {
  answering(() => answer);
  vi.stubGlobal('fetch', () =>
    Promise.resolve(
      Response.json(answer.body, { status: 'status' in answer ? answer.status : 200 }),
    ),
  );
  drawn(<Workspaces workspaces={[row('a')]} removed={[]} offered={[]} />);
  fireEvent.change(screen.getByLabelText('Zip of a workspace folder'), {
    target: { files: [new File(['x'], 'harbour.zip')] },
  });
  if (to !== null) await waitFor(() => expect(assign).toHaveBeenCalledExactlyOnceWith(to));
  else expect((await screen.findByRole('alert')).textContent).toContain(says);
});

test('a zip that the server cannot be asked about is not lost without a word', async () => {
  page([row('a')]);
  vi.stubGlobal('fetch', () => Promise.reject(new Error('away')));
  fireEvent.change(screen.getByLabelText('Zip of a workspace folder'), {
    target: { files: [new File(['x'], 'harbour.zip')] },
  });
  expect((await screen.findByRole('alert')).textContent).toContain('The server is out of reach.');
  expect(assign).not.toHaveBeenCalled();
});

test('folders that are no workspace yet can be opened', async () => {
  const offered = [
    { folder: '/srv/a', name: 'a', workspace: null },
    { folder: '/srv/b', name: 'b', workspace: 'b' },
    { folder: '/srv/c', name: 'c', workspace: null },
  ];
  const { sent } = page([row('a')], { offered });
  const list = screen.getByLabelText<HTMLSelectElement>('Folder on this machine');
  expect([...list.options].map(({ value }) => value)).toEqual(['/srv/a', '/srv/c']);
  fireEvent.change(list, { target: { value: '/srv/c' } });
  fireEvent.click(button('Open folder'));
  await waitFor(() => expect(assign).toHaveBeenCalledExactlyOnceWith('/w/made'));
  expect(sent).toEqual([{ method: 'POST', path: '/api/folders', body: { folder: '/srv/c' } }]);
});

test('without a folder to open nothing is offered', () => {
  page([row('a')], { offered: [{ folder: '/srv/b', name: 'b', workspace: 'b' }] });
  expect(screen.queryByLabelText('Folder on this machine')).toBeNull();
});

test('a title changes by Enter or when it is left, and not where it is as before', async () => {
  const { sent } = page([row('a')]);
  const line = () => screen.queryByLabelText<HTMLInputElement>('Title of A');
  const rename = (to: string, how: () => unknown) => {
    fireEvent.click(button('Rename A'));
    fireEvent.change(line()!, { target: { value: to } });
    how();
  };
  rename('B', () => fireEvent.keyDown(line()!, { key: 'Escape' }));
  expect(line()).toBeNull();
  rename(' ', () => fireEvent.keyDown(line()!, { key: 'Enter' }));
  expect(line()).toBeNull();
  rename('A ', () => fireEvent.blur(line()!));
  expect(line()).toBeNull();
  expect(sent).toEqual([]);
  rename('Harbour ', () => fireEvent.keyDown(line()!, { key: 'Enter' }));
  await waitFor(() => expect(line()).toBeNull());
  expect(sent).toEqual([{ method: 'PUT', path: '/api/workspaces/a', body: { title: 'Harbour' } }]);
});

test('a copy is named at once', async () => {
  const { sent } = page([row('a'), row('made')]);
  fireEvent.click(button('Copy A'));
  await screen.findByLabelText('Title of MADE');
  expect(sent[0]!.body).toEqual({ copyOf: 'a', title: 'Copy of A' });
});

test('what is removed can be brought back, at once or later', async () => {
  const { sent } = page([row('a')], { removed: [{ name: 'old', title: 'Old' }] });
  fireEvent.click(button('Remove A'));
  await screen.findByText(/^A was removed/);
  fireEvent.click(button('Undo'));
  await screen.findByText(/The workspace is back/);
  fireEvent.click(button('Restore Old'));
  await waitFor(() =>
    // On a busy machine another page of the same process may still ask for something.
    expect(
      sent
        .map(({ method, path }) => `${method} ${path}`)
        .filter((one) => one.includes('/api/workspaces/')),
    ).toEqual([
      'DELETE /api/workspaces/a',
      'POST /api/workspaces/a/restore',
      'POST /api/workspaces/old/restore',
    ]),
  );
});

test('a folder is closed, and both stay', async () => {
  const { sent } = page([row('a', { folder: folder() })]);
  fireEvent.click(button('Close the folder of A'));
  await screen.findByText(/Both stay as they are/);
  expect(sent[0]).toMatchObject({ method: 'DELETE', path: '/api/folders?workspace=a' });
});

test('the archive has its own list, and both say where they are empty', () => {
  const { sent } = page([row('a', { archived: true }), row('b', { archived: true })]);
  expect(screen.getByText('Every workspace is archived.')).toBeTruthy();
  fireEvent.click(button('Archive (2)'));
  expect(screen.getByText('A')).toBeTruthy();
  fireEvent.click(button('Take out of the archive: A'));
  expect(sent[0]).toMatchObject({ path: '/api/workspaces/a', body: { archived: false } });
  fireEvent.click(button('Back to the workspaces'));
  expect(screen.queryByText('A')).toBeNull();
});

test('with nothing archived there is no archive; archiving asks for it', () => {
  const { sent } = page([row('a')]);
  expect(screen.queryByRole('button', { name: /^Archive \(/ })).toBeNull();
  fireEvent.click(button('Archive A'));
  expect(sent[0]!.body).toEqual({ archived: true });
});

test('what is refused is said, and nothing else', async () => {
  page([row('a', { folder: folder() })], {}, { status: 409, body: { says: 'It is in use.' } });
  fireEvent.click(button('Remove A'));
  expect((await screen.findByRole('alert')).textContent).toContain('It is in use.');
  fireEvent.click(button('Close the folder of A'));
  fireEvent.click(button('Copy A'));
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect(screen.queryByText(/was removed|was copied|Both stay/)).toBeNull();
  expect(router.refresh).not.toHaveBeenCalled();
});
