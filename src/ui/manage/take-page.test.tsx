import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn, router } from '../../../tests/support/drawn';
import type { Change } from '@/core/workspace/taking';
import { TakePage } from './take-page';

const change = (unit: string, more: Partial<Change> = {}): Change => ({
  unit,
  is: 'changed',
  conflict: false,
  says: [],
  ...more,
});
const CHANGES = [
  change('forms/visit', { says: Array.from({ length: 8 }, (_, i) => `field f${i} added`) }),
  change('tables/berths', { is: 'new' }),
  change('services/register', { conflict: true }),
  change('forms/crew', { is: 'removed' }),
];

/** The page, the folder brought in as it differs. */
async function page(
  plan: { known: boolean; changes: Change[] } | null,
  takings: Parameters<typeof TakePage>[0]['takings'] = [],
) {
  const sent = answering(({ path, method }) =>
    method === 'DELETE'
      ? { body: {} }
      : path.endsWith('/changes')
        ? plan === null
          ? { status: 400, body: { says: 'The zip has no workspace.' } }
          : { body: { title: 'Harbour', ...plan } }
        : { body: { id: 7, saved: 2 } },
  );
  drawn(
    <TakePage
      title="Harbour"
      people={[{ key: 'mira', name: 'Mira', roles: [] }]}
      takings={takings}
    />,
  );
  if (takings.length === 0) {
    fireEvent.change(screen.getByLabelText('Zip of the folder'), {
      target: { files: [new File(['abc'], 'harbour.zip')] },
    });
    await screen.findByText(
      plan === null ? /has no workspace/ : /^harbour.zip (would change|holds)/,
    );
  }
  return { sent };
}

const ticked = () =>
  screen
    .getAllByLabelText<HTMLInputElement>(/^Take (forms|tables|services)/)
    .filter(({ checked }) => checked)
    .map((one) => one.getAttribute('aria-label'));
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });

test('what would change is shown first, and what conflicts is not chosen', async () => {
  const { sent } = await page({ known: true, changes: CHANGES });
  expect(sent).toEqual([
    {
      method: 'POST',
      path: '/api/workspace/changes',
      body: { folder: { zip: btoa('abc') }, records: false },
    },
  ]);
  expect(screen.getByText(/^harbour.zip would change/).textContent).toBe(
    'harbour.zip would change 4 things, one of them changed here as well.',
  );
  expect(ticked()).toEqual(['Take forms/visit', 'Take tables/berths', 'Take forms/crew']);
  expect(screen.getByText('field f5 added')).toBeTruthy();
  expect(screen.queryByText('field f6 added')).toBeNull();
  expect(screen.getByText('and 2 more')).toBeTruthy();
  expect(screen.getAllByText(/taking it replaces what is here/)).toHaveLength(1);
  expect(screen.queryByText(/does not say what it was made from/)).toBeNull();
});

test('from a zip that says not what it was made from nothing is removed unless somebody chooses it', async () => {
  await page({ known: false, changes: CHANGES });
  expect(ticked()).toEqual(['Take forms/visit', 'Take tables/berths']);
  expect(screen.getByText(/does not say what it was made from/)).toBeTruthy();
});

test('what is chosen is taken, and can be undone at once', async () => {
  const { sent } = await page({ known: true, changes: CHANGES });
  fireEvent.click(screen.getByLabelText('Take forms/crew'));
  fireEvent.click(screen.getByLabelText('Take services/register'));
  fireEvent.click(screen.getByLabelText('Take services/register'));
  fireEvent.click(button('Take 2 things'));
  await screen.findByText(/2 things of harbour.zip are in the workspace now/);
  expect(sent.at(-1)).toEqual({
    method: 'POST',
    path: '/api/workspace/takings',
    body: {
      folder: { zip: btoa('abc') },
      units: ['forms/visit', 'tables/berths'],
      what: 'harbour.zip',
    },
  });
  expect(screen.queryByRole('table')).toBeNull();
  fireEvent.click(button('Undo'));
  await screen.findByText(/It is as it was before/);
  expect(sent.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/workspace/takings/7' });
  expect(router.refresh).toHaveBeenCalledTimes(3);
});

test('all are chosen with one press, or none', async () => {
  await page({ known: true, changes: CHANGES });
  fireEvent.click(button('Choose all'));
  expect(ticked()).toHaveLength(4);
  fireEvent.click(button('Choose none'));
  expect(ticked()).toEqual([]);
  expect(button('Take 0 things').disabled).toBe(true);
});

test('with records it is looked at anew', async () => {
  const { sent } = await page({ known: true, changes: CHANGES });
  fireEvent.click(screen.getByLabelText('records too'));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]!.body).toEqual({ folder: { zip: btoa('abc') }, records: true });
});

test('a folder like the workspace changes nothing', async () => {
  await page({ known: false, changes: [] });
  expect(await screen.findByText(/nothing would change/)).toBeTruthy();
  expect(screen.queryByText(/does not say what it was made from/)).toBeNull();
  expect(screen.queryByRole('button', { name: /Take|Choose (all|none)/ })).toBeNull();
  fireEvent.click(button('Cancel'));
  expect(screen.queryByText(/nothing would change/)).toBeNull();
});

test('what cannot be read is said', async () => {
  await page(null);
  expect(screen.getByRole('alert').textContent).toContain('The zip has no workspace.');
  expect(router.refresh).not.toHaveBeenCalled();
});

test('what was brought in lately says by whom, and can be undone', async () => {
  const taking = (id: number, by: string | null) => ({
    id,
    what: `zip ${id}`,
    by,
    at: '2031-05-02T09:00:00Z',
    count: id,
  });
  const { sent } = await page({ known: true, changes: [] }, [
    taking(1, 'mira'),
    taking(2, 'gone'),
    taking(3, null),
  ]);
  const lines = screen.getAllByText(/^zip/).map((one) => one.textContent);
  expect(lines[0]).toContain('zip 1, 1 thing, 2031-05-02 09:00 UTC, by Mira');
  expect(lines[1]).toContain('2 things');
  expect(lines[1]).toContain('by gone');
  expect(lines[2]).not.toContain('by');
  fireEvent.click(button('Undo zip 2'));
  await waitFor(() => expect(sent[0]!.path).toBe('/api/workspace/takings/2'));
});
