/** A draft saves in order, never over somebody else's, and keeps in the browser what is not saved yet. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { Draft, put, type Sent } from './draft';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** A draft whose server answers when it is told to. */
function drafted(revision = 1) {
  const sent: { value: string; from: number; answer: (came: Sent<string>) => void }[] = [];
  const kept: (string | null)[] = [];
  const draft = new Draft<string>({
    value: 'first',
    revision,
    send: (value, from) => new Promise((resolve) => sent.push({ value, from, answer: resolve })),
    keep: { put: (value) => void kept.push(value), remove: () => void kept.push(null) },
    onChange: () => undefined,
  });
  const answer = async (came: Sent<string>) => {
    sent.at(-1)!.answer(came);
    await vi.advanceTimersByTimeAsync(0);
  };
  const past = (ms: number) => vi.advanceTimersByTimeAsync(ms);
  return { draft, sent, kept, answer, past };
}

test('is saved once the typing rests, from the revision it was made from', async () => {
  const { draft, sent, kept, answer, past } = drafted(7);
  draft.edit('a');
  await past(300);
  draft.edit('ab');
  expect([draft.saving.state, sent.length, kept]).toEqual(['waiting', 0, ['a', 'ab']]);
  await past(700);
  expect(sent.map(({ value, from }) => [value, from])).toEqual([['ab', 7]]);
  await answer({ is: 'saved', revision: 8 });
  expect([draft.saving.state, draft.revision, kept.at(-1)]).toEqual(['saved', 8, null]);
});

test('what is edited while it is being saved is saved after it, one after the other', async () => {
  const { draft, sent, kept, answer, past } = drafted();
  draft.edit('a');
  await past(700);
  draft.edit('ab');
  await past(5000);
  expect(sent).toHaveLength(1);
  await answer({ is: 'saved', revision: 2 });
  expect([draft.saving.state, kept.at(-1)]).toEqual(['waiting', 'ab']);
  await past(700);
  expect(sent.map(({ value, from }) => [value, from])).toEqual([
    ['a', 1],
    ['ab', 2],
  ]);
});

test('left while it is being saved, what came after is sent behind it, once; a page that stays has no conflict with that', async () => {
  const { draft, sent, kept, answer, past } = drafted();
  draft.edit('a');
  draft.leave();
  draft.leave();
  draft.edit('ab');
  draft.leave();
  draft.leave();
  expect(sent.map(({ value, from }) => [value, from])).toEqual([
    ['a', 1],
    ['ab', 2],
    ['ab', 1],
  ]);
  sent[0]!.answer({ is: 'saved', revision: 2 });
  await past(700);
  expect(sent).toHaveLength(4);
  await answer({ is: 'conflict', theirs: { content: 'ab', revision: 3 } });
  expect([draft.saving.state, draft.revision, kept.at(-1)]).toEqual(['saved', 3, null]);
});

test('is tried again while the server is out of reach, and not when it was refused', async () => {
  const { draft, sent, answer, past } = drafted();
  draft.edit('a');
  await past(700);
  await answer({ is: 'unreachable', says: 'gone' });
  expect(draft.saving).toEqual({ state: 'unsaved', says: 'gone' });
  await past(2100);
  await answer({ is: 'refused', says: 'no' });
  await past(60_000);
  expect([sent.length, draft.saving]).toEqual([2, { state: 'unsaved', says: 'no' }]);
  void draft.save();
  await past(0);
  expect(sent).toHaveLength(3);
});

describe('when somebody else was faster', () => {
  test('nothing is sent until one is chosen, and what is typed meanwhile is kept', async () => {
    const { draft, sent, kept, answer, past } = drafted();
    draft.edit('mine');
    await past(700);
    await answer({ is: 'conflict', theirs: { content: 'theirs', revision: 5 } });
    draft.edit('mine, more');
    await past(60_000);
    expect([sent.length, draft.saving.state, kept.at(-1)]).toEqual([1, 'conflict', 'mine, more']);
    draft.settle('mine');
    await past(0);
    expect([sent.at(-1)!.value, sent.at(-1)!.from]).toEqual(['mine, more', 5]);
  });

  test('theirs can be taken, and is not sent back', async () => {
    const { draft, sent, kept, answer, past } = drafted();
    draft.edit('mine');
    await past(700);
    await answer({ is: 'conflict', theirs: { content: 'theirs', revision: 5 } });
    draft.settle('theirs');
    await past(60_000);
    expect([draft.value, draft.revision, draft.saving.state, sent.length, kept.at(-1)]).toEqual([
      'theirs',
      5,
      'saved',
      1,
      null,
    ]);
  });
});

test('saving at once waits for what is under way, and comes back when all is saved', async () => {
  const { draft, sent, answer, past } = drafted();
  draft.edit('a');
  await past(700);
  draft.edit('ab');
  let through = false;
  void draft.save().then(() => (through = true));
  await answer({ is: 'saved', revision: 2 });
  expect([sent.length, through]).toEqual([2, false]);
  await answer({ is: 'saved', revision: 3 });
  expect([through, draft.saving.state]).toEqual([true, 'saved']);
});

test('one that has ended sends nothing more, and forgets what it kept only when it was saved or told to', async () => {
  const { draft, sent, kept, answer, past } = drafted();
  draft.edit('a');
  await past(700);
  draft.edit('ab');
  draft.end();
  await past(60_000);
  expect([sent.length, kept]).toEqual([1, ['a', 'ab']]);
  await answer({ is: 'saved', revision: 2 });
  expect(sent).toHaveLength(1);
});

test.each([
  [200, { revision: 4 }, { is: 'saved', revision: 4 }],
  [
    409,
    { saved: false, theirs: { content: 'x', revision: 4 } },
    { is: 'conflict', theirs: { content: 'x', revision: 4 } },
  ],
  [409, { says: 'Not now.' }, { is: 'refused', says: 'Not now.' }],
  [413, { says: 'Too large.' }, { is: 'refused', says: 'Too large.' }],
  [
    503,
    { says: 'The database is out of reach.' },
    { is: 'unreachable', says: 'The database is out of reach.' },
  ],
])('an answer of %i says what it says', async (status, body, came) => {
  vi.useRealTimers();
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })));
  expect(await put('/x', { value: 1 }, ({ theirs }) => theirs)).toEqual(came);
  vi.unstubAllGlobals();
});

test('a body too large to be sent while the page is left is sent as usual, and is not called out of reach', async () => {
  vi.useRealTimers();
  const asked: boolean[] = [];
  vi.stubGlobal(
    'fetch',
    (_path: string, { keepalive, body }: { keepalive?: boolean; body: string }) => {
      asked.push(keepalive === true);
      // As browsers do it.
      return keepalive === true && body.length > 64 * 1024
        ? Promise.reject(new TypeError('Failed to fetch'))
        : Promise.resolve(new Response('{"revision":2}'));
    },
  );
  expect(await put('/x', { value: 'x'.repeat(100_000) }, ({ theirs }) => theirs)).toEqual({
    is: 'saved',
    revision: 2,
  });
  expect(await put('/x', { value: 'x' }, ({ theirs }) => theirs)).toEqual({
    is: 'saved',
    revision: 2,
  });
  expect(asked).toEqual([false, true]);
  vi.unstubAllGlobals();
});
