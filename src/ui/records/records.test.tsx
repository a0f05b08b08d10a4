/** The list of records without a browser, with the server answering by hand. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import { page, section, text } from '../../../tests/support/forms';
import { Records } from './records';

afterEach(() => vi.unstubAllGlobals());

const FORM = {
  name: 'vessel',
  title: 'Vessel',
  pages: [page('main', [section('stay', [text('name')])])],
};
const record = (id: string) => ({
  id,
  values: { name: `Tern ${id}` },
  revision: 1,
  release: null,
  savedBy: 'mira',
  savedAt: '2031-05-02T09:00:00.000Z',
});
const ALL = {
  records: ['1', '2', '3'].map(record),
  next: null,
  total: { count: 3, more: false },
};

test('what comes while a row is pressed is drawn after the press, so that the press ends where it began', async () => {
  const user = userEvent.setup();
  let answer = () => undefined as void;
  const waits = new Promise<void>((resolve) => (answer = resolve));
  vi.stubGlobal('fetch', (path: string) => {
    if (path.includes('/revisions')) return Promise.resolve(Response.json([]));
    return waits.then(() =>
      Response.json({ says: 'Search for 3 letters or more.' }, { status: 400 }),
    );
  });
  drawn(
    <Records
      title="Harbour"
      people={[{ key: 'mira', name: 'Mira', roles: [] }]}
      person="mira"
      form={FORM}
      tables={[]}
      first={ALL}
    />,
  );
  await user.type(screen.getByLabelText('Search'), 'ab');
  const history = screen.getByRole('button', { name: 'History of record 2' });
  await user.pointer({ keys: '[MouseLeft>]', target: history });
  answer();
  await new Promise((resolve) => setTimeout(resolve, 600));
  expect(screen.queryByText('Search for 3 letters or more.')).toBeNull();
  await user.pointer({ keys: '[/MouseLeft]', target: history });
  await screen.findByText('Search for 3 letters or more.');
  await waitFor(() => expect(screen.getByText(/saved 0 times/)).toBeTruthy());
  fireEvent.click(screen.getByRole('button', { name: 'Close' }));
});
