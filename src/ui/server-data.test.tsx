/** What pages ask of the server: late answers, refusals, the next page, and a check that goes on until it is through. */
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { PageAround } from '../../tests/support/drawn';
import { useWorkspaceCheck } from './check-workspace';
import {
  useRecords,
  type ListQuery,
  type ListedRecord,
  type RecordPage,
} from './records/use-records';

/** Answers by path, each as soon as it is let go. */
let asked: { path: string; answer: (status: number, body: unknown) => void }[];

beforeEach(() => {
  asked = [];
  vi.stubGlobal(
    'fetch',
    (path: string) =>
      new Promise<Response>((resolve) =>
        asked.push({
          path,
          answer: (status, body) => resolve(new Response(JSON.stringify(body), { status })),
        }),
      ),
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const record = (id: string): ListedRecord => ({
  id,
  values: {},
  revision: 1,
  release: 1,
  savedBy: 'mira',
  savedAt: '2031-05-02T09:00:00Z',
});
const pageOf = (ids: string[], next: string | null = null): RecordPage => ({
  records: ids.map(record),
  next,
  total: { count: ids.length, more: next !== null },
});
const listed = (first: RecordPage | null) =>
  renderHook(
    ({ search }: { search: string }) => useRecords('visit', { search } as ListQuery, first),
    {
      wrapper: PageAround,
      initialProps: { search: '' },
    },
  );
const answered = async (path: string, status: number, body: unknown) => {
  await waitFor(() => expect(asked.map((one) => one.path)).toContain(path));
  await act(async () => asked.find((one) => one.path === path)!.answer(status, body));
};

test('records that came with the page are not asked for again; the next page is added to them', async () => {
  const { result } = listed(pageOf(['1', '2'], 'after-2'));
  expect(result.current.records.map(({ id }) => id)).toEqual(['1', '2']);
  expect(asked).toEqual([]);
  act(() => result.current.loadMore());
  await answered('/api/forms/visit/records?after=after-2', 200, pageOf(['3']));
  await waitFor(() => expect(result.current.records.map(({ id }) => id)).toEqual(['1', '2', '3']));
  expect([result.current.more, result.current.loading]).toEqual([false, false]);
});

test('an answer to what is no longer asked for changes nothing, whenever it comes', async () => {
  const { result, rerender } = listed(pageOf(['1']));
  rerender({ search: 'mar' });
  // Something of a test before may still ask as well.
  await waitFor(() =>
    expect(asked.map(({ path }) => path)).toContain('/api/forms/visit/records?search=mar'),
  );
  rerender({ search: 'marrow' });
  await answered('/api/forms/visit/records?search=marrow', 200, pageOf(['7']));
  await waitFor(() => expect(result.current.records.map(({ id }) => id)).toEqual(['7']));
  await answered('/api/forms/visit/records?search=mar', 200, pageOf(['1', '7', '9']));
  expect(result.current.records.map(({ id }) => id)).toEqual(['7']);
});

test('a search that is refused says why and leaves what was found before it', async () => {
  const { result, rerender } = listed(pageOf(['1', '2']));
  rerender({ search: 'ab' });
  await answered('/api/forms/visit/records?search=ab', 422, { says: 'Three letters or more.' });
  await waitFor(() => expect(result.current.says).toBe('Three letters or more.'));
  expect(result.current.records.map(({ id }) => id)).toEqual(['1', '2']);
  rerender({ search: '' });
  await waitFor(() => expect(result.current.says).toBeNull());
});

test('a check is asked after until it is through, and not before it is wanted', async () => {
  const { result, rerender } = renderHook(
    ({ wanted }: { wanted: boolean }) => useWorkspaceCheck(wanted),
    { wrapper: PageAround, initialProps: { wanted: false } },
  );
  expect(asked).toEqual([]);
  rerender({ wanted: true });
  await answered('/api/problems', 202, { problems: [], done: 1, of: 3, cutShort: [] });
  await waitFor(() => expect([result.current.done, result.current.over]).toEqual([1, false]));
  await waitFor(() => expect(asked).toHaveLength(2));
  await act(async () => asked[1]!.answer(200, { problems: [], done: 3, of: 3, cutShort: [] }));
  await waitFor(() => expect([result.current.done, result.current.over]).toEqual([3, true]));
  await new Promise((resolve) => setTimeout(resolve, 500));
  expect(asked).toHaveLength(2);
});

test('a check whose server is out of reach says so and stops asking', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed')));
  const { result } = renderHook(() => useWorkspaceCheck(true), { wrapper: PageAround });
  await waitFor(() => expect(result.current.says).toBe('The server is out of reach.'));
  expect(result.current.over).toBe(false);
});
