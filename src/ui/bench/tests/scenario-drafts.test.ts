/** Scenarios as they save themselves on the bench, with the server answering by hand. */
import { afterEach, describe, expect, test, vi } from 'vitest';
import { benchOf, type Sent } from '../../../../tests/support/bench';
import type { Scenario } from '@/core/scenario/definition';

const opened: { stop(): void }[] = [];
const SCENARIO: Scenario = { title: 'Mooring', open: { as: 'mira' }, steps: [] };
const PATH = '/api/forms/visit/scenarios/mooring';
const titled = (title: string): Scenario => ({ ...SCENARIO, title });

function bench(answers: (sent: Sent) => { status: number; body: unknown } | null = () => null) {
  let revision = 1;
  const made = benchOf({
    scenarios: { mooring: SCENARIO },
    answers: (sent) =>
      answers(sent) ?? {
        status: 200,
        body:
          sent.method === 'POST'
            ? { name: 'added', scenario: sent.body, revision: 1 }
            : { revision: sent.path.startsWith(PATH) ? ++revision : 0 },
      },
  });
  opened.push(made.bench);
  const { tests, core, screen } = made.bench;
  return {
    ...made,
    tests,
    saving: core.saving,
    notice: () => screen.store.getState().notice?.text,
    there: () => tests.store.getState().scenarios,
    saved: () => made.sent.filter(({ path }) => path.startsWith(PATH)),
  };
}

afterEach(() => {
  for (const one of opened.splice(0)) one.stop();
  vi.unstubAllGlobals();
});

test('each change is saved from the revision that the one before gave', async () => {
  const { tests, there, saved } = bench();
  await tests.change('mooring', titled('A'), '');
  await tests.change('mooring', titled('B'), '');
  expect(saved().map(({ body }) => body)).toEqual([
    { scenario: titled('A'), from: 1 },
    { scenario: titled('B'), from: 2 },
  ]);
  expect(there()).toEqual([
    { name: 'mooring', scenario: titled('B'), revision: 3, saving: { state: 'saved' } },
  ]);
});

test('a change made while another is on its way waits, is known as unsaved, and is saved at last', async () => {
  const { tests, there, saved, saving } = bench();
  const first = tests.change('mooring', titled('A'), '');
  const second = tests.change('mooring', titled('B'), '');
  expect(there()[0]!.scenario.title).toBe('B');
  expect(saving.unsavedNow()).toBe('scenarios');
  await Promise.all([first, second]);
  expect(saved().map(({ body }) => (body as { scenario: Scenario }).scenario.title)).toEqual([
    'A',
    'B',
  ]);
  expect(saving.unsavedNow()).toBeNull();
});

test('what the server is out of reach for is asked about on leaving, and saved when it is back', async () => {
  let isThere = false;
  const { tests, saving, there } = bench(() =>
    isThere ? null : { status: 503, body: { says: 'gone' } },
  );
  await tests.change('mooring', titled('A'), '');
  expect(there()[0]!.saving).toEqual({ state: 'unsaved', says: 'gone' });
  expect(saving.losesOnLeaving()).toBe(true);
  isThere = true;
  await saving.saveAll();
  expect(saving.losesOnLeaving()).toBe(false);
  expect(there()[0]).toMatchObject({ scenario: titled('A'), saving: { state: 'saved' } });
});

describe('where somebody else was faster', () => {
  const conflict = (content: Scenario | null) => ({
    status: 409,
    body: { says: 'Somebody else was faster.', theirs: { content, revision: content ? 7 : 0 } },
  });
  function met(content: Scenario | null) {
    let first = true;
    return bench(() => {
      if (!first) return null;
      first = false;
      return conflict(content);
    });
  }

  test('mine is saved over it once it is chosen', async () => {
    const { tests, there, saved, saving } = met(titled('Theirs'));
    await tests.change('mooring', titled('Mine'), '');
    expect(there()[0]!.saving.state).toBe('conflict');
    tests.settle('mooring', 'mine');
    await saving.saveAll();
    expect(saved().at(-1)!.body).toEqual({ scenario: titled('Mine'), from: 7 });
  });

  test('theirs is taken once it is chosen', async () => {
    const { tests, there } = met(titled('Theirs'));
    await tests.change('mooring', titled('Mine'), '');
    tests.settle('mooring', 'theirs');
    expect(there()[0]).toMatchObject({ scenario: titled('Theirs'), revision: 7 });
  });

  test('one that was removed goes, or is brought back', async () => {
    const gone = met(null);
    await gone.tests.change('mooring', titled('Mine'), '');
    gone.tests.settle('mooring', 'theirs');
    expect(gone.there()).toEqual([]);
    const kept = met(null);
    await kept.tests.change('mooring', titled('Mine'), '');
    kept.tests.settle('mooring', 'mine');
    await kept.saving.saveAll();
    expect(kept.saved().at(-1)!.body).toEqual({ scenario: titled('Mine'), from: 0 });
  });
});

test('one that was removed comes back by undoing that', async () => {
  const { tests, there, saved } = bench();
  await tests.drop('mooring');
  expect(there()).toEqual([]);
  expect(saved()[0]).toMatchObject({ method: 'DELETE', path: `${PATH}?from=1` });
  await tests.undo();
  expect(there()).toMatchObject([{ name: 'mooring', scenario: SCENARIO }]);
  expect(saved()[1]!.body).toEqual({ scenario: SCENARIO, from: 0 });
});

test('one that cannot be removed stays, and nothing is left to be undone', async () => {
  const { tests, there, notice } = bench(({ method }) =>
    method === 'DELETE' ? { status: 409, body: { says: 'It was changed.' } } : null,
  );
  await tests.drop('mooring');
  expect(there()).toHaveLength(1);
  expect(notice()).toBe('It was changed.');
  expect(tests.store.getState().undoable).toEqual([]);
});

test('what an earlier visit left is brought back and saved', async () => {
  const { tests, there, saving, saved } = bench();
  tests.drafts.takeLeft('mooring', titled('Left'));
  await saving.saveAll();
  expect(there()[0]!.scenario.title).toBe('Left');
  expect(saved()[0]!.body).toEqual({ scenario: titled('Left'), from: 1 });
});
