/** The behaviours of the bench as a set, with the server answering by hand. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createStore } from 'zustand/vanilla';
import type { LanguageClient } from '@/workers/language-client';
import { behaviourSet } from './behaviour-set';
import type { Behaviour, BenchState } from './state';

const behaviour = (name: string, text = `/** ${name}: x. */\nlog(1);`): Behaviour => ({
  name,
  text,
  revision: 1,
  saving: { state: 'saved' },
  diagnostics: [],
  running: null,
  broken: null,
});

interface Sent {
  method: string;
  path: string;
  body: unknown;
}

function bench(
  names: string[],
  answers: (sent: Sent) => { status: number; body: unknown } = () => ({ status: 200, body: {} }),
) {
  const store = createStore<BenchState>(
    () =>
      ({
        behaviours: names.map((name) => behaviour(name)),
        active: names[0] ?? '',
        pane: 'map',
        deleted: null,
        notice: null,
        scenarios: [],
      }) as unknown as BenchState,
  );
  const sent: Sent[] = [];
  const done: string[] = [];
  vi.stubGlobal('fetch', (path: string, { method, body }: { method: string; body?: string }) => {
    const request = {
      method,
      path,
      body: body === undefined ? null : (JSON.parse(body) as unknown),
    };
    sent.push(request);
    const answer = answers(request);
    return Promise.resolve(new Response(JSON.stringify(answer.body), { status: answer.status }));
  });
  const languageWorker = {
    remove: (name: string) => Promise.resolve(done.push(`remove ${name}`)),
    put: ({ name }: { name: string }) => Promise.resolve(done.push(`put ${name}`)),
  } as unknown as LanguageClient;
  const set = behaviourSet(store, {
    edit: (name, text) =>
      store.setState((state) => ({
        behaviours: state.behaviours.map((one) => (one.name === name ? { ...one, text } : one)),
      })),
    saveAll: () => Promise.resolve(void done.push('save all')),
    begin: (name) => void done.push(`begin ${name}`),
    renamed: (renames) => void done.push(...renames.map(({ from, to }) => `${from} is ${to}`)),
    forget: (name) => void done.push(`forget ${name}`),
    languageWorker: () => languageWorker,
    pathOfScript: (name) => `/api/forms/visit/behaviours/${name}`,
    pathOf: (rest) => `/api/forms/visit/${rest}`,
    afterSetChanged: () => Promise.resolve(void done.push('after')),
  });
  const order = () => store.getState().behaviours.map(({ name }) => name);
  return { store, set, sent, done, order };
}

beforeEach(() => vi.useRealTimers());
afterEach(() => vi.unstubAllGlobals());

test('a new one comes last, under a name of its own, and is opened', () => {
  const { set, store, order } = bench(['10-a.ts', '20-b.ts']);
  expect(set.addBehaviour('Late fees')).toBe('30-late-fees.ts');
  expect(order()).toEqual(['10-a.ts', '20-b.ts', '30-late-fees.ts']);
  expect(store.getState()).toMatchObject({ active: '30-late-fees.ts', pane: 'code' });
  expect(store.getState().behaviours[2]!.text).toBe('/** Late fees: says what this is for. */\n\n');
});

test('a copy begins turned off', () => {
  const { set, store } = bench(['10-a.ts']);
  set.duplicate('10-a.ts');
  expect(store.getState().behaviours[1]).toMatchObject({
    name: '20-10-a-ts-copy.ts',
    text: '/**\n * 10-a.ts copy: x.\n * @off\n */\nlog(1);',
  });
  set.duplicate('nothing.ts');
  expect(store.getState().behaviours).toHaveLength(2);
});

test('title, purpose and off are written into the source', () => {
  const { set, store } = bench(['10-a.ts']);
  set.describe('10-a.ts', { title: 'Pilot' });
  expect(store.getState().behaviours[0]!.text).toBe('/** Pilot: x. */\nlog(1);');
  set.turn('10-a.ts');
  set.turn('nothing.ts');
  expect(store.getState().behaviours[0]!.text).toBe('/**\n * Pilot: x.\n * @off\n */\nlog(1);');
});

describe('deleting', () => {
  test('takes it away, opens its neighbour, and can be undone', async () => {
    const { set, store, sent, done, order } = bench(['10-a.ts', '20-b.ts', '30-c.ts']);
    store.setState({ active: '20-b.ts' });
    await set.remove('20-b.ts');
    expect(sent).toEqual([
      { method: 'DELETE', path: '/api/forms/visit/behaviours/20-b.ts?from=1', body: null },
    ]);
    expect(order()).toEqual(['10-a.ts', '30-c.ts']);
    expect(store.getState()).toMatchObject({ active: '30-c.ts', deleted: { name: '20-b.ts' } });
    expect(done).toEqual(['save all', 'forget 20-b.ts', 'remove 20-b.ts', 'after']);
    set.restore();
    expect(order()).toEqual(['10-a.ts', '20-b.ts', '30-c.ts']);
    expect(store.getState()).toMatchObject({ active: '20-b.ts', deleted: null });
    expect(store.getState().behaviours[1]!.text).toContain('20-b.ts: x.');
  });

  test('saves first what was typed last', async () => {
    const { set, store, done } = bench(['10-a.ts']);
    store.setState((state) => ({
      behaviours: state.behaviours.map((one) => ({ ...one, saving: { state: 'waiting' } })),
    }));
    await set.remove('10-a.ts');
    expect(done.slice(0, 2)).toEqual(['save all', 'forget 10-a.ts']);
    expect(store.getState().active).toBe('');
  });

  test('leaves it there when the server refuses', async () => {
    const { set, store, order } = bench(['10-a.ts'], () => ({
      status: 503,
      body: { says: 'The database is out of reach.' },
    }));
    await set.remove('10-a.ts');
    expect(order()).toEqual(['10-a.ts']);
    expect(store.getState().notice).toEqual({
      tone: 'error',
      text: 'The database is out of reach.',
    });
  });
});

describe('order', () => {
  const renames = [{ from: '30-c.ts', to: '15-c.ts' }];

  test('names that changed are followed everywhere', async () => {
    const { set, store, sent, done, order } = bench(['10-a.ts', '20-b.ts', '30-c.ts'], () => ({
      status: 200,
      body: { renames },
    }));
    store.setState({
      active: '30-c.ts',
      scenarios: [
        {
          name: 's',
          revision: 1,
          scenario: {
            title: 'S',
            open: { as: 'mira' },
            steps: [{ expect: { '@errors': [{ behaviour: '30-c' }] } as never }],
          },
        },
      ],
    });
    await set.reorder(['10-a.ts', '30-c.ts', '20-b.ts']);
    expect(sent[0]).toEqual({
      method: 'PUT',
      path: '/api/forms/visit/order',
      body: { order: ['10-a.ts', '30-c.ts', '20-b.ts'] },
    });
    expect(order()).toEqual(['10-a.ts', '15-c.ts', '20-b.ts']);
    expect(store.getState().active).toBe('15-c.ts');
    expect(JSON.stringify(store.getState().scenarios)).toContain('"15-c"');
    expect(done).toEqual([
      'save all',
      '30-c.ts is 15-c.ts',
      'remove 30-c.ts',
      'put 15-c.ts',
      'after',
    ]);
  });

  test('by one place earlier or later, and not beyond the ends', async () => {
    const { set, sent } = bench(['10-a.ts', '20-b.ts', '30-c.ts'], () => ({
      status: 200,
      body: { renames: [] },
    }));
    await set.move('20-b.ts', -1);
    await set.move('20-b.ts', 1);
    await set.move('10-a.ts', -1);
    await set.move('nothing.ts', 1);
    expect(sent.map(({ body }) => (body as { order: string[] }).order)).toEqual([
      ['20-b.ts', '10-a.ts', '30-c.ts'],
      ['10-a.ts', '30-c.ts', '20-b.ts'],
    ]);
  });

  test('stays while something cannot be saved', async () => {
    const { set, store, sent } = bench(['10-a.ts', '20-b.ts']);
    store.setState((state) => ({
      behaviours: state.behaviours.map((one) => ({
        ...one,
        saving: { state: 'unsaved', says: 'gone' },
      })),
    }));
    await set.reorder(['20-b.ts', '10-a.ts']);
    expect(sent).toEqual([]);
    expect(store.getState().notice?.text).toBe('Something is not saved yet, so the order stays.');
  });
});

describe('a starter taken over', () => {
  test('adds the behaviour and its scenarios, and says so', async () => {
    const { set, store } = bench(['10-a.ts'], ({ body }) => ({
      status: 200,
      body: { name: 'made', scenario: body },
    }));
    const scenario = { title: 'Proof', open: { as: 'mira' }, steps: [] };
    await set.takeStarter('Pilot by choice', 'keep(() => {});\n', [scenario]);
    expect(store.getState().behaviours[1]).toMatchObject({
      name: '20-pilot-by-choice.ts',
      text: 'keep(() => {});\n',
    });
    expect(store.getState().scenarios).toEqual([{ name: 'made', scenario }]);
    expect(store.getState().notice?.text).toBe(
      '“Pilot by choice” is added, with a scenario that proves it.',
    );
  });

  test('says when a scenario could not be kept', async () => {
    const { set, store } = bench(['10-a.ts'], () => ({ status: 400, body: { says: 'No.' } }));
    await set.takeStarter('Pilot', 'keep(() => {});\n', [
      { title: 'Proof', open: { as: 'mira' }, steps: [] },
    ]);
    expect(store.getState().notice).toEqual({ tone: 'error', text: 'No.' });
  });
});
