/** Searching all forms for faults from the page of forms: begun, followed, stopped, and what could not be searched. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn } from '../../../tests/support/drawn';
import { FaultSearch, type SearchState } from './fault-search';

afterEach(() => vi.unstubAllGlobals());

const state = (more: Partial<SearchState>): SearchState => ({
  id: 7,
  what: 'faults',
  stopped: false,
  done: 3,
  of: 10,
  forms: [],
  ...more,
});

/** The control, with what the server says of the last search; `then` once somebody has asked for something. */
function control(now: SearchState | null, then: SearchState | null = now) {
  const sent = answering(({ method }) => {
    if (method === 'GET') return { body: sent.some((one) => one.method !== 'GET') ? then : now };
    return { body: { id: 7 } };
  });
  drawn(<FaultSearch />);
  return sent;
}
const asked = (sent: readonly { method: string; path: string }[]) =>
  sent.filter(({ method }) => method !== 'GET').map(({ method, path }) => `${method} ${path}`);

test('one is begun where none goes on, and told while it goes on', async () => {
  const sent = control(null, state({}));
  fireEvent.click(await screen.findByRole('button', { name: 'Search for faults' }));
  expect((await screen.findByRole('status')).textContent).toBe('Searching: 3 of 10 parts');
  expect(asked(sent)).toEqual(['POST /api/searches']);
  expect(screen.queryByRole('button', { name: 'Search for faults' })).toBeNull();
});

test('one that goes on can be stopped', async () => {
  const sent = control(state({}), state({ stopped: true }));
  fireEvent.click(await screen.findByRole('button', { name: 'Stop' }));
  await waitFor(() =>
    expect(screen.getByRole('button', { name: 'Search for faults' })).toBeTruthy(),
  );
  expect(asked(sent)).toEqual(['DELETE /api/searches/7']);
});

test('a form that could not be searched is named with the reason', async () => {
  control(state({ done: 10, forms: [{ form: 'vessel', says: 'Register does not compile: x' }] }));
  expect(await screen.findByText('vessel: Register does not compile: x')).toBeTruthy();
});
