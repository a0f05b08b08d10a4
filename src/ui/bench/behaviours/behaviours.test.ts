/** The behaviours of the bench as a set, with the server answering by hand. */
import { afterEach, describe, expect, test, vi } from 'vitest';
import { benchOf, type Sent } from '../../../../tests/support/bench';

const opened: { stop(): void }[] = [];

function bench(
  names: string[],
  answers?: (sent: Sent) => { status: number; body: unknown },
  scenarios = {},
) {
  const made = benchOf({
    behaviours: Object.fromEntries(names.map((name) => [name, `/** ${name}: x. */\nlog(1);`])),
    scenarios,
    ...(answers === undefined ? {} : { answers }),
  });
  opened.push(made.bench);
  const { behaviours: set, code, screen, tests } = made.bench;
  return {
    ...made,
    set,
    code: () => code.store.getState(),
    notice: () => screen.store.getState().notice,
    tests: () => tests.store.getState(),
    order: () => code.store.getState().behaviours.map(({ name }) => name),
  };
}

afterEach(() => {
  for (const one of opened.splice(0)) one.stop();
  vi.unstubAllGlobals();
});

test('a new one comes last, under a name of its own, and is opened', () => {
  const { set, code, order, bench: whole } = bench(['10-a.ts', '20-b.ts']);
  whole.screen.showPane('map');
  expect(set.add('Late fees')).toBe('30-late-fees.ts');
  expect(order()).toEqual(['10-a.ts', '20-b.ts', '30-late-fees.ts']);
  expect(code()).toMatchObject({ active: '30-late-fees.ts', goTo: { line: 3, takesFocus: true } });
  expect(whole.screen.store.getState().pane).toBe('code');
  expect(code().behaviours[2]!.text).toBe('/** Late fees: says what this is for. */\n\n');
});

test('code for several forms has their folder, and says that it is for this one', () => {
  const { set, code } = bench(['10-a.ts']);
  const several = set.addShared('several', 'Night rates');
  const shared = set.addShared('module', 'Rates');
  const texts = new Map(code().behaviours.map(({ name, text }) => [name, text]));
  expect([several, shared]).toEqual(['behaviours/20-night-rates.ts', 'shared/rates.ts']);
  expect(texts.get(several)).toContain('@forms visit');
  expect(texts.get(shared)).toContain('export function');
});

test('a copy begins turned off', () => {
  const { set, code } = bench(['10-a.ts']);
  set.duplicate('10-a.ts');
  expect(code().behaviours[1]).toMatchObject({
    name: '20-10-a-ts-copy.ts',
    text: '/**\n * 10-a.ts copy: x.\n * @off\n */\nlog(1);',
  });
  set.duplicate('nothing.ts');
  expect(code().behaviours).toHaveLength(2);
});

test('title, purpose and off are written into the source', () => {
  const { set, code } = bench(['10-a.ts']);
  set.describe('10-a.ts', { title: 'Pilot' });
  expect(code().behaviours[0]!.text).toBe('/** Pilot: x. */\nlog(1);');
  set.turn('10-a.ts');
  set.turn('nothing.ts');
  expect(code().behaviours[0]!.text).toBe('/**\n * Pilot: x.\n * @off\n */\nlog(1);');
});

describe('deleting', () => {
  test('takes it away, opens its neighbour, and can be undone', async () => {
    const { bench: whole, set, code, sent, done, order } = bench(['10-a.ts', '20-b.ts', '30-c.ts']);
    whole.code.open('20-b.ts');
    await set.remove('20-b.ts');
    expect(sent).toContainEqual({
      method: 'DELETE',
      path: '/api/forms/visit/behaviours/20-b.ts?from=1',
      body: null,
    });
    expect(order()).toEqual(['10-a.ts', '30-c.ts']);
    expect(code().active).toBe('30-c.ts');
    expect(whole.behaviours.store.getState().deleted?.name).toBe('20-b.ts');
    expect(done).toContain('remove 20-b.ts');
    set.restore();
    expect(order()).toEqual(['10-a.ts', '20-b.ts', '30-c.ts']);
    expect(code().active).toBe('20-b.ts');
    expect(whole.behaviours.store.getState().deleted).toBeNull();
    expect(code().behaviours[1]!.text).toContain('20-b.ts: x.');
  });

  test('saves first what was typed last', async () => {
    const { bench: whole, set, code, sent } = bench(['10-a.ts']);
    whole.code.edit('10-a.ts', 'log(2);');
    await set.remove('10-a.ts');
    expect(sent.slice(0, 2)).toEqual([
      {
        method: 'PUT',
        path: '/api/forms/visit/behaviours/10-a.ts',
        body: { text: 'log(2);', from: 1 },
      },
      { method: 'DELETE', path: '/api/forms/visit/behaviours/10-a.ts?from=2', body: null },
    ]);
    expect(code().active).toBe('');
  });

  test('leaves it there when the server refuses', async () => {
    const { set, notice, order } = bench(['10-a.ts'], () => ({
      status: 503,
      body: { says: 'The database is out of reach.' },
    }));
    await set.remove('10-a.ts');
    expect(order()).toEqual(['10-a.ts']);
    expect(notice()).toEqual({ tone: 'error', text: 'The database is out of reach.' });
  });
});

describe('order', () => {
  const renames = [{ from: '30-c.ts', to: '15-c.ts' }];

  test('names that changed are followed everywhere', async () => {
    const scenario = {
      title: 'S',
      open: { as: 'mira' },
      steps: [{ expect: { '@errors': [{ behaviour: '30-c' }] } as never }],
    };
    const made = bench(
      ['10-a.ts', '20-b.ts', '30-c.ts'],
      () => ({ status: 200, body: { renames, revision: 2 } }),
      { s: scenario },
    );
    const { bench: whole, set, code, tests, sent, done, order } = made;
    whole.code.open('30-c.ts');
    await set.reorder(['10-a.ts', '30-c.ts', '20-b.ts']);
    expect(sent[0]).toEqual({
      method: 'PUT',
      path: '/api/forms/visit/order',
      body: { order: ['10-a.ts', '30-c.ts', '20-b.ts'] },
    });
    expect(order()).toEqual(['10-a.ts', '15-c.ts', '20-b.ts']);
    expect(code().active).toBe('15-c.ts');
    expect(code().behaviours[1]!.running!.name).toBe('15-c');
    expect(JSON.stringify(tests().scenarios)).toContain('"15-c"');
    // The server has saved it as another revision.
    expect(tests().scenarios[0]!.revision).toBe(2);
    expect(done).toEqual(['remove 30-c.ts', 'put 15-c.ts']);
    // It goes on saving itself under the other name.
    whole.code.edit('15-c.ts', 'log(3);');
    await whole.core.saving.saveAll();
    expect(sent.at(-1)!.path).toBe('/api/forms/visit/behaviours/15-c.ts');
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
    const orders = sent.filter(({ path }) => path.endsWith('/order'));
    expect(orders.map(({ body }) => (body as { order: string[] }).order)).toEqual([
      ['20-b.ts', '10-a.ts', '30-c.ts'],
      ['10-a.ts', '30-c.ts', '20-b.ts'],
    ]);
  });

  test('stays while something cannot be saved', async () => {
    const {
      bench: whole,
      set,
      sent,
      notice,
    } = bench(['10-a.ts', '20-b.ts'], () => ({
      status: 503,
      body: { says: 'gone' },
    }));
    whole.code.edit('10-a.ts', 'log(2);');
    await set.reorder(['20-b.ts', '10-a.ts']);
    expect(sent.filter(({ path }) => path.endsWith('/order'))).toEqual([]);
    expect(notice()?.text).toBe('Something is not saved yet, so the order stays.');
  });
});

describe('a starter taken over', () => {
  const scenario = { title: 'Proof', open: { as: 'mira' }, steps: [] };

  test('adds the behaviour and its scenarios, and says so', async () => {
    const { set, code, tests, notice } = bench(['10-a.ts'], ({ body }) => ({
      status: 200,
      body: { name: 'made', scenario: body, revision: 1 },
    }));
    await set.takeStarter('Pilot by choice', 'keep(() => {});\n', [scenario]);
    expect(code().behaviours[1]).toMatchObject({
      name: '20-pilot-by-choice.ts',
      text: 'keep(() => {});\n',
    });
    expect(tests().scenarios).toMatchObject([{ name: 'made', scenario, revision: 1 }]);
    expect(notice()?.text).toBe('“Pilot by choice” is added, with a scenario that proves it.');
  });

  test('says when a scenario could not be kept', async () => {
    const { set, notice } = bench(['10-a.ts'], () => ({ status: 400, body: { says: 'No.' } }));
    await set.takeStarter('Pilot', 'keep(() => {});\n', [scenario]);
    expect(notice()).toEqual({ tone: 'error', text: 'No.' });
  });
});
