import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn } from '../../../tests/support/drawn';
import { formWith, number, rows, text } from '../../../tests/support/forms';
import { indexOf } from '@/core/form/table-index';
import { RecordHistory } from './history';

const FORM = formWith([text('vessel'), number('draught'), rows('cargo', [text('goods')])]);
const revision = (number_: number, values: object | null, more: object = {}) => ({
  revision: number_,
  values,
  release: null,
  savedBy: 'mira',
  savedAt: '2031-05-02T09:00:00Z',
  ...more,
});

async function historyOf(revisions: object[] | { refused: string }) {
  const sent = answering(() =>
    'refused' in revisions
      ? { status: 404, body: { says: revisions.refused } }
      : { body: revisions },
  );
  const onDone = vi.fn();
  drawn(
    <RecordHistory
      form={FORM}
      record={{ id: 'a/1' } as Parameters<typeof RecordHistory>[0]['record']}
      people={[{ key: 'mira', name: 'Mira', roles: [] }]}
      around={{
        options: null,
        table: () =>
          indexOf({ name: 'x', title: 'X', key: 'k', label: 'k', columns: [], rows: [] }),
        dates: 'iso',
      }}
      onDone={onDone}
    />,
  );
  if ('refused' in revisions) await screen.findByRole('alert');
  else await screen.findByText(/Revision 1/);
  return { sent, onDone, lines: () => screen.getAllByRole('row').map((one) => one.textContent) };
}

test('each revision says what it changed, by whom and under which release', async () => {
  const { sent, lines, onDone } = await historyOf([
    revision(3, { vessel: 'Auk', draught: null, cargo: [{ goods: 'ore' }] }, { release: 4 }),
    revision(2, { vessel: 'Tern', draught: 4.5, cargo: [] }, { savedBy: 'gone' }),
    revision(1, { vessel: 'Tern', draught: null, cargo: [] }),
  ]);
  expect(sent[0]!.path).toBe('/api/forms/visit/records/a%2F1/revisions');
  expect(screen.getByText(/saved 3 times/)).toBeTruthy();
  expect(screen.getByText(/Revision 3/).textContent).toBe(
    'Revision 3, Mira, 2031-05-02 09:00 UTC, release 4',
  );
  expect(screen.getByText(/Revision 2/).textContent).toBe('Revision 2, gone, 2031-05-02 09:00 UTC');
  expect(lines()).toEqual([
    'VesselTern → Auk',
    'Draught4.5 → nothing',
    'Cargo0 rows → 1 row',
    'Draughtnothing → 4.5',
    'VesselTern',
    'Cargo0 rows',
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'Close' }));
  expect(onDone).toHaveBeenCalledTimes(1);
});

test('a record that was removed, and one saved without a change, say so', async () => {
  await historyOf([revision(2, null), revision(1, {})]);
  expect(screen.getByText('The record was removed.')).toBeTruthy();
  expect(screen.getByText('No field changed.')).toBeTruthy();
});

test('one revision is saved once', async () => {
  await historyOf([revision(1, { vessel: 'Tern' })]);
  expect(screen.getByText(/saved once/)).toBeTruthy();
});

test('what cannot be had is said', async () => {
  await historyOf({ refused: 'There is no record "a/1".' });
  expect(screen.getByRole('alert').textContent).toContain('There is no record "a/1".');
  expect(screen.queryByText('Reading the revisions…')).toBeNull();
});
