/** The list of scenarios on a whole bench: kept, replaced, removed, reviewed. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, type BenchOptions } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import type { Scenario } from '@/core/scenario/definition';
import { ScenariosTab } from './scenarios';

afterEach(() => vi.unstubAllGlobals());

const scenario = (title: string, expect_: object, more: object = {}): Scenario =>
  ({
    title,
    open: { as: 'mira', record: null },
    steps: [{ set: 'vessel', to: 'Tern' }, { expect: expect_ }],
    ...more,
  }) as Scenario;
const PASSES = scenario('Passes', { vessel: { value: 'Tern' } });
const FAILS = scenario('Fails', {
  vessel: { value: 'Auk' },
  master: { value: 'x', locked: true, required: true },
});

async function tabOf(scenarios: Record<string, Scenario>, answers?: BenchOptions['answers']) {
  const { bench, sent } = benchOf({
    scenarios,
    answers:
      answers ??
      (({ method, body }) =>
        method === 'POST'
          ? { status: 201, body: { name: 'new.json', scenario: body, revision: 1 } }
          : { status: 200, body: { revision: 2 } }),
  });
  await bench.form.begin();
  await bench.tests.run();
  drawn(<ScenariosTab bench={bench} />);
  return { bench, sent, kept: () => bench.tests.store.getState().scenarios };
}
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });
const status = () => screen.getAllByRole('status')[0]!.textContent;
const titled = (value: string) =>
  fireEvent.change(screen.getByLabelText('Title of a new scenario'), { target: { value } });

test('a form without any says how to begin', async () => {
  await tabOf({});
  expect(status()).toContain('There is no scenario yet.');
  expect(screen.getByPlaceholderText('Keep the form as it opens as …')).toBeTruthy();
});

test('each stands with its outcome, what it is made of, and the first of what it misses', async () => {
  await tabOf({
    'a.json': PASSES,
    'b.json': FAILS,
    'c.json': scenario('Cases', {}, { startsAs: 'Passes', cases: { inputs: [], rows: [{}, {}] } }),
  });
  expect(status()).toMatch(/^\d of 3 passed$/);
  const lines = screen.getAllByRole('listitem').map((one) => one.textContent);
  expect(lines[0]).toContain('✓Passes 1 step');
  expect(lines[1]).toContain('×Fails 1 step');
  expect(lines[1]).toContain('and 1 more');
  expect(lines[2]).toContain('starts as Passes · 1 step · 2 cases');
});

test('what was done is kept under a title, and opened', async () => {
  const { bench, kept } = await tabOf({});
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  expect(await screen.findByPlaceholderText('Keep the step of the live form as …')).toBeTruthy();
  titled('  ');
  expect(button('Keep').disabled).toBe(true);
  titled(' A vessel ');
  fireEvent.click(button('Keep'));
  await waitFor(() => expect(kept().map((one) => one.scenario.title)).toEqual(['A vessel']));
  await waitFor(() => expect(bench.tests.store.getState().scenario).toBe('new.json'));
  fireEvent.click(button('‹ All scenarios'));
  expect(screen.getByLabelText<HTMLInputElement>('Title of a new scenario').value).toBe('');
});

test('what cannot be kept stays to be kept', async () => {
  const { bench, kept } = await tabOf({}, () => ({ status: 503, body: { says: 'Busy.' } }));
  titled('A');
  fireEvent.click(button('Keep'));
  await waitFor(() => expect(bench.screen.store.getState().notice?.text).toBe('Busy.'));
  expect(kept()).toEqual([]);
});

test('a title that is taken replaces, and says so; that is undone', async () => {
  const { bench, kept } = await tabOf({ 'a.json': PASSES });
  await bench.form.step({ set: 'master', to: 'Oldane' });
  titled('Passes');
  expect(screen.getByText(/it would be replaced/)).toBeTruthy();
  fireEvent.click(button('Replace it'));
  await waitFor(() =>
    expect(kept()[0]!.scenario.steps[0]).toEqual({ set: 'master', to: 'Oldane' }),
  );
  expect(await screen.findByText('“Passes” was replaced.')).toBeTruthy();
  fireEvent.click(button('Undo'));
  await waitFor(() => expect(kept()[0]!.scenario.steps[0]).toEqual({ set: 'vessel', to: 'Tern' }));
});

test('one is removed, and that is undone', async () => {
  const { kept } = await tabOf({ 'a.json': PASSES, 'b.json': FAILS });
  fireEvent.click(button('Remove Fails'));
  await waitFor(() => expect(kept().map(({ name }) => name)).toEqual(['a.json']));
  fireEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(kept()).toHaveLength(2));
});

test('what came can be accepted, one by one or all', async () => {
  const { bench, kept } = await tabOf({ 'a.json': PASSES, 'b.json': FAILS });
  expect(screen.getByText(/4 results are not as expected/)).toBeTruthy();
  fireEvent.click(button('Review'));
  expect(screen.getAllByRole('row').map((one) => one.textContent)[1]).toContain('“Auk”“Tern”');
  fireEvent.click(screen.getAllByRole('button', { name: /^Accept .*vessel/i })[0]!);
  await waitFor(() =>
    expect(kept()[1]!.scenario.steps[1]).toMatchObject({ expect: { vessel: { value: 'Tern' } } }),
  );
  await bench.tests.run();
  await waitFor(() => expect(screen.getByText(/3 results are not as expected/)).toBeTruthy());
  fireEvent.click(button('Accept all'));
  await waitFor(() =>
    expect(kept()[1]!.scenario.steps[1]).toMatchObject({
      expect: { master: { value: null, locked: false, required: false } },
    }),
  );
  await bench.tests.run();
  await waitFor(() => expect(screen.queryByText(/not as expected/)).toBeNull());
  expect(status()).toBe('2 of 2 passed');
});

test('former runs are asked for when somebody wants them', async () => {
  const runs = [
    { passed: 1, failed: 1, failing: ['Fails'], by: 'mira', at: '2031-05-02T09:00:00Z' },
    { passed: 2, failed: 0, failing: [], by: 'gone', at: '2031-05-01T09:00:00Z' },
  ];
  const { sent } = await tabOf({}, ({ path, method }) => ({
    status: 200,
    body: path.endsWith('/scenario-run') && method === 'GET' ? runs : { revision: 2 },
  }));
  const details = screen.getByText('Former runs').closest('details')!;
  details.open = true;
  fireEvent(details, new Event('toggle'));
  expect(await screen.findByText('1 of 2 passed')).toBeTruthy();
  expect(screen.getByText('Fails')).toBeTruthy();
  expect([screen.getByText('Mira'), screen.getByText('gone')]).toHaveLength(2);
  expect(sent.filter(({ method }) => method === 'GET')).toHaveLength(1);
});
