import { afterEach, expect, test, vi } from 'vitest';
import { upload } from './upload';
import type { Filling } from './use-filling';

afterEach(() => vi.unstubAllGlobals());

const KEPT = { name: 'plan.pdf', size: 4, type: 'application/pdf', digest: 'a'.repeat(64) };
const sent = (answer: () => Promise<Response>) => {
  const asked: { path: string; init: RequestInit }[] = [];
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    asked.push({ path, init });
    return answer();
  });
  const session = { begin: () => Promise.resolve('f-1') } as unknown as Filling;
  const file = new File(['plan'], 'plan.pdf', { type: 'application/pdf' });
  return { asked, kept: upload('vessel', session, file, 'plans') };
};

test('the content goes to the server under the id of the filling-in, which gives its digest', async () => {
  const { asked, kept } = sent(() => Promise.resolve(Response.json(KEPT)));
  expect(await kept).toEqual(KEPT);
  const { pathname, searchParams } = new URL(asked[0]!.path, 'http://here');
  expect(pathname).toBe('/api/fill/vessel/files');
  expect(Object.fromEntries(searchParams)).toEqual({
    filling: 'f-1',
    field: 'plans',
    name: 'plan.pdf',
    type: 'application/pdf',
  });
  expect(asked[0]!.init.method).toBe('POST');
});

test.each([
  [
    'a refusal, in its words',
    () => Promise.resolve(Response.json({ says: 'It is too large.' }, { status: 413 })),
    'It is too large.',
  ],
  [
    'a refusal without words',
    () => Promise.resolve(Response.json({}, { status: 500 })),
    'The server did not take the file.',
  ],
  [
    'a server out of reach',
    () => Promise.reject(new TypeError('failed')),
    'The server is out of reach, so the file was not kept.',
  ],
])('%s is an error', async (_, answer, says) => {
  await expect(sent(answer).kept).rejects.toThrow(says);
});
