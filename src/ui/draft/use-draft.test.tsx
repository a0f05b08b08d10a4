/** Leaving a page whose draft cannot be saved is asked about; one that can be is saved on the way. */
import { act, renderHook } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { PageAround } from '../../../tests/support/drawn';
import { useDraft } from './use-draft';

afterEach(() => vi.unstubAllGlobals());

async function edited(status: number, body: object) {
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json(body, { status })));
  const { result, unmount } = renderHook(
    () => useDraft('/api/tables/x', 'old', 1, (value, from) => ({ value, from })),
    { wrapper: PageAround },
  );
  act(() => result.current.edit('new'));
  await act(() => result.current.save());
  const event = new Event('beforeunload', { cancelable: true });
  dispatchEvent(event);
  const state = result.current.saving.state;
  unmount();
  return [state, event.defaultPrevented];
}

test.each([
  ['saved', 200, { revision: 2 }, false],
  ['conflict', 409, { theirs: { content: 'theirs', revision: 5 } }, true],
  ['unsaved', 503, { says: 'gone' }, true],
  ['unsaved', 422, { says: 'No.' }, true],
])('%s', async (state, status, body, asks) => {
  expect(await edited(status, body)).toEqual([state, asks]);
});
