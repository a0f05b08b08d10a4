import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, type BenchOptions } from '../../../tests/support/bench';
import { drawn } from '../../../tests/support/drawn';
import type { FolderState } from './folder';
import { FolderNotice } from './folder-notice';

afterEach(() => vi.unstubAllGlobals());

function noticeOf(folder: Partial<FolderState> | null, answers?: BenchOptions['answers']) {
  const { bench, sent } = benchOf(answers === undefined ? {} : { answers });
  drawn(<FolderNotice bench={bench} />);
  act(() =>
    bench.folder.store.setState({
      folder:
        folder === null ? null : { folder: '/srv/harbour', errors: [], conflicts: [], ...folder },
    }),
  );
  return { bench, sent };
}
const CONFLICT = { unit: 'forms/visit/behaviours/10-a', app: 'here', folder: null };

test.each([null, {}])('of a folder in which all is well (%j) nothing is said', (folder) => {
  noticeOf(folder);
  expect(screen.queryByRole('alert')).toBeNull();
});

test('what cannot be taken is named, up to four lines', () => {
  noticeOf({ errors: ['1', '2', '3', '4', '5'].map((at) => `form.json, line ${at}`) });
  const says = screen.getByRole('alert').textContent;
  expect(says).toContain('Something in /srv/harbour cannot be taken');
  expect(says).toContain('line 4');
  expect(says).not.toContain('line 5');
});

test.each([
  ['Keep what is here', 'app'],
  ['Take what the folder has', 'folder'],
])('of what was changed on both sides one is chosen: %s', async (name, take) => {
  const { sent } = noticeOf({ conflicts: [CONFLICT] } as never);
  expect(screen.getByLabelText('Here').textContent).toBe('here');
  expect(screen.getByLabelText('In the folder').textContent).toBe('(removed)');
  fireEvent.click(screen.getByRole('button', { name }));
  await waitFor(() =>
    expect(sent.at(-1)).toEqual({
      method: 'PUT',
      path: '/api/workspace/conflicts',
      body: { unit: CONFLICT.unit, take },
    }),
  );
});

test('a choice that is refused is said; one that is taken is not', async () => {
  const refused = noticeOf({ conflicts: [CONFLICT] } as never, () => ({
    status: 409,
    body: { says: 'It changed again.' },
  }));
  fireEvent.click(screen.getByRole('button', { name: 'Keep what is here' }));
  await waitFor(() =>
    expect(refused.bench.screen.store.getState().notice?.text).toBe('It changed again.'),
  );
});

test('a choice that is taken says nothing', async () => {
  const { bench, sent } = noticeOf({ conflicts: [CONFLICT] } as never);
  fireEvent.click(screen.getByRole('button', { name: 'Keep what is here' }));
  await waitFor(() => expect(sent.length).toBeGreaterThan(0));
  expect(bench.screen.store.getState().notice).toBeNull();
});
