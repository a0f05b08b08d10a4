/** The bench as a whole: what may be changed while a former release is looked at, and what rooms tell each other. */
import { afterEach, describe, expect, test, vi } from 'vitest';
import { benchOf } from '../../../tests/support/bench';
import { openingOf } from '../../../tests/support/hosts';
import { VISIT } from '../../../tests/support/bench';
import type { Bench } from './create-bench';

const opened: { stop(): void }[] = [];
afterEach(() => {
  for (const one of opened.splice(0)) one.stop();
  vi.unstubAllGlobals();
});

const SCRIPT = '/** Greeting: x. */\non.load(() => { fields.master.value = "Ann"; });';

function released() {
  const made = benchOf({
    behaviours: { '10-a.ts': SCRIPT },
    scenarios: { s: { title: 'S', open: { as: 'mira' }, steps: [] } },
    recording: {
      id: 1,
      release: 3,
      content: { opening: openingOf({ form: VISIT }), steps: [], says: '', ended: null } as never,
    },
  });
  opened.push(made.bench);
  return made;
}

const isOpen = async ({ form }: Bench) => {
  await form.begin();
  return form.session.state;
};

describe('a former release', () => {
  const edited = { title: 'T', open: { as: 'mira' }, steps: [] };
  test.each<[string, (bench: Bench) => unknown]>([
    ['a text', ({ code }) => code.edit('10-a.ts', 'log(1);')],
    ['an export', ({ code }) => code.renameExport('shared/a.ts', 0, 'b')],
    ['a new behaviour', ({ behaviours }) => behaviours.add('New')],
    ['a starter', ({ behaviours }) => behaviours.takeStarter('New', '', [edited])],
    ['a removal', ({ behaviours }) => behaviours.remove('10-a.ts')],
    ['an order', ({ behaviours }) => behaviours.reorder(['10-a.ts'])],
    [
      'an edit of the structure',
      ({ structure }) => structure.edit({ do: 'changeForm', title: 'T' }),
    ],
    [
      'a renaming',
      ({ structure }) => structure.rename({ part: 'vessel', key: null, to: 'x' }, true),
    ],
    ['a scenario', ({ tests }) => tests.keep('T', edited)],
    ['a changed scenario', ({ tests }) => tests.change('s', edited, '')],
    ['a removed scenario', ({ tests }) => tests.drop('s')],
    ['a sample', ({ form }) => form.keepSample()],
    ['a release', ({ release }) => release.make(null)],
  ])('takes no change: %s', async (_, change) => {
    const { bench, sent } = released();
    const before = JSON.stringify([
      bench.code.store.getState().behaviours,
      bench.tests.store.getState().scenarios,
      bench.core.form(),
    ]);
    await change(bench);
    await bench.core.saving.saveAll();
    expect(bench.screen.store.getState().notice?.text).toBe(
      'A former release cannot be changed. Open the recording with today’s code.',
    );
    expect(sent).toEqual([]);
    expect(
      JSON.stringify([
        bench.code.store.getState().behaviours,
        bench.tests.store.getState().scenarios,
        bench.core.form(),
      ]),
    ).toBe(before);
  });

  test('sends nothing that changes something, whatever asks for it', async () => {
    const { bench, sent } = released();
    const reply = await bench.core.save('PUT', '/api/forms/visit/order', {});
    expect(reply).toMatchObject({ ok: false });
    await bench.tests.run();
    expect(sent.filter(({ method }) => method !== 'GET')).toEqual([]);
  });
});

test('after a replay nobody stands in the past any more, and what differs at the end is known', async () => {
  const { bench } = benchOf({ behaviours: { '10-a.ts': SCRIPT } });
  opened.push(bench);
  const { answers } = await isOpen(bench);
  expect(answers[0]!.changes.master?.value).toBe('Ann');
  bench.tape.store.setState({ standing: { entry: 0, detail: null } });
  bench.code.scripts.change('10-a.ts', { running: null });
  await bench.form.session.replay();
  expect(bench.tape.store.getState().standing).toBeNull();
  expect(bench.form.store.getState().replayed?.map(({ part }) => part)).toEqual(['master']);
});

test('a bench that is made again takes over what is open and done', async () => {
  const { bench } = benchOf({ behaviours: { '10-a.ts': SCRIPT } });
  opened.push(bench);
  await isOpen(bench);
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  bench.core.renew({ pane: 'structure', says: 'Renamed.' });
  expect(bench.handedOver()).toEqual({
    open: bench.form.session.state.open,
    steps: [{ set: 'vessel', to: 'Tern' }],
    active: '10-a.ts',
    pane: 'structure',
    renamed: null,
    says: 'Renamed.',
  });
});

test('steps that were dropped to go on from an earlier one are brought back', async () => {
  const { bench } = benchOf({ behaviours: { '10-a.ts': SCRIPT } });
  opened.push(bench);
  await isOpen(bench);
  for (const to of ['Tern', 'Gull']) await bench.form.step({ set: 'vessel', to });
  bench.form.session.lookAt(1);
  await bench.tape.goOnFromHere();
  expect(bench.form.session.state.steps).toEqual([{ set: 'vessel', to: 'Tern' }]);
  await bench.tape.bringBack();
  expect(bench.form.session.state.steps).toHaveLength(2);
  expect(bench.tape.store.getState().dropped).toEqual([]);
});
