import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { HistoryPane } from './history';

afterEach(() => vi.unstubAllGlobals());

const [FIRST, SECOND, NOW] = ['on.load(() => {});', 'on.load(() => 1);', 'on.load(() => 2);'];
const REVISIONS = [
  { revision: 2, text: SECOND, savedBy: 'mira', savedAt: '2031-05-02T09:00:00Z' },
  { revision: 1, text: FIRST, savedBy: 'somebody', savedAt: '2031-05-01T09:00:00Z' },
];

const shown = () => screen.findByLabelText('Difference');
const removed = () => document.querySelectorAll('.cm-deletedChunk').length;
const added = () => document.querySelectorAll('.cm-changedLine').length;

test('a revision is compared with the one before, the first with none, and either with what stands now', async () => {
  const { bench } = benchOf({
    behaviours: { '10-a.ts': NOW },
    answers: () => ({ status: 200, body: REVISIONS }),
  });
  drawn(<HistoryPane bench={bench} name="10-a.ts" />);
  expect((await shown()).textContent).toContain(SECOND);
  expect(screen.getByText('revision 1 → 2')).toBeTruthy();
  expect([removed(), added()]).toEqual([1, 1]);

  fireEvent.click(screen.getByText('revision 1'));
  await waitFor(() => expect(screen.getByText('the first revision')).toBeTruthy());
  expect((await shown()).textContent).toContain(FIRST);
  expect([removed(), added()]).toEqual([0, 0]);

  fireEvent.click(screen.getByRole('button', { name: 'What has changed since' }));
  expect(screen.getByText('revision 1 → as it stands')).toBeTruthy();
  expect((await shown()).textContent).toContain(NOW);
  expect([removed(), added()]).toEqual([1, 1]);
});

test('a former revision is brought back into the code, which is shown then; the one that stands is not offered', async () => {
  const { bench } = benchOf({
    behaviours: { '10-a.ts': SECOND },
    answers: () => ({ status: 200, body: REVISIONS }),
  });
  drawn(<HistoryPane bench={bench} name="10-a.ts" />);
  const back = await screen.findByRole<HTMLButtonElement>('button', {
    name: 'Bring back revision 2',
  });
  expect(back.disabled).toBe(true);
  fireEvent.click(screen.getByText('revision 1'));
  fireEvent.click(screen.getByRole('button', { name: 'Bring back revision 1' }));
  expect(bench.code.store.getState().behaviours[0]!.text).toBe(FIRST);
  expect(bench.screen.store.getState().pane).toBe('code');
});

test('who saved a revision is named, or by key where nobody knows them', async () => {
  const { bench } = benchOf({
    behaviours: { '10-a.ts': NOW },
    answers: () => ({ status: 200, body: REVISIONS }),
  });
  drawn(<HistoryPane bench={bench} name="10-a.ts" />);
  expect(await screen.findByText(/Mira/)).toBeTruthy();
  expect(screen.getByText(/somebody/)).toBeTruthy();
});
