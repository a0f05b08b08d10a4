/** The head of the bench: how the form is opened, how it stands, and what is kept. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT, type BenchOptions } from '../../../tests/support/bench';
import { drawn } from '../../../tests/support/drawn';
import type { Scenario } from '@/core/scenario/definition';
import { BenchHead } from './head';

afterEach(() => vi.unstubAllGlobals());

const scenario = (title: string, expected: string): Scenario => ({
  title,
  open: { as: 'mira', record: null },
  steps: [{ set: 'vessel', to: 'Tern' }, { expect: { vessel: { value: expected } } }],
});
const PASSES = scenario('Passes', 'Tern');
const FAILS = scenario('Fails', 'Auk');

async function headOf(options: BenchOptions = {}, begun = true) {
  const { bench, sent } = benchOf(options);
  if (begun) await bench.form.begin();
  drawn(<BenchHead bench={bench} />);
  return { bench, sent };
}
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });
const steps = (bench: Awaited<ReturnType<typeof headOf>>['bench']) =>
  bench.form.session.state.steps;

test('before the form is open nothing opens it otherwise', async () => {
  const { bench } = await headOf({}, false);
  for (const label of ['Which record', 'As whom', 'On which day'])
    expect(screen.getByLabelText<HTMLInputElement>(label).disabled).toBe(true);
  for (const name of ['How the form is opened', 'Start again', /Make release/])
    expect(button(name).disabled).toBe(true);
  await bench.form.begin();
  await waitFor(() => expect(button('Start again').disabled).toBe(false));
});

test('the form is opened on another day, and begun again', async () => {
  const { bench } = await headOf();
  expect(screen.getByLabelText<HTMLInputElement>('On which day').value).toBe('2031-05-02');
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  fireEvent.click(button('Start again'));
  await waitFor(() => expect(steps(bench)).toEqual([]));
  const day = screen.getByLabelText('On which day');
  fireEvent.change(day, { target: { value: '2031-06-03' } });
  fireEvent.blur(day);
  await waitFor(() => expect(bench.form.session.state.open.clock).toBe('2031-06-03T09:00:00Z'));
});

test('whom somebody is says their roles', async () => {
  await headOf();
  expect(screen.getByLabelText<HTMLSelectElement>('As whom').title).toBe('Clerk');
});

test('what is not as usual about the opening is said', async () => {
  const { bench } = await headOf();
  expect(button('How the form is opened').title).toBe(
    'Viewing only, launch parameters, parent, services',
  );
  await bench.form.reopen({ ...bench.form.session.state.open, viewing: true });
  await waitFor(() => expect(button('How the form is opened').textContent).toContain('… changed'));
  expect(button('How the form is opened').title).not.toContain('Viewing only, launch');
});

test.each([
  [{}, 'No scenarios'],
  [{ 'a.json': PASSES }, '✓ 1 scenario'],
  [{ 'a.json': PASSES, 'b.json': scenario('Too', 'Tern') }, '✓ 2 scenarios'],
  [{ 'a.json': PASSES, 'b.json': FAILS }, '× 1 of 2 fail'],
])('scenarios are counted: %j', async (scenarios, says) => {
  const { bench } = await headOf({ scenarios });
  await bench.tests.run();
  await waitFor(() => expect(screen.getByText(says)).toBeTruthy());
  fireEvent.click(screen.getByText(says));
  expect(bench.screen.store.getState().pane).toBe('tests');
});

test('before they ran it is said how many have', async () => {
  await headOf({ scenarios: { 'a.json': PASSES } });
  expect(screen.getByText('0 of 1 scenarios…')).toBeTruthy();
});

test('the next release is numbered', async () => {
  await headOf();
  expect(button('Make release 1')).toBeTruthy();
});

test('what was done is kept under a title', async () => {
  const { bench } = await headOf({
    answers: ({ body }) => ({ status: 201, body: { name: 'a.json', scenario: body, revision: 1 } }),
  });
  expect(button('Keep as scenario').disabled).toBe(true);
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  fireEvent.click(button('Keep as scenario'));
  const title = await screen.findByLabelText('Title');
  expect(screen.getByText(/The opening and the step done so far/)).toBeTruthy();
  expect(button('Keep').disabled).toBe(true);
  fireEvent.keyDown(title, { key: 'Enter' });
  fireEvent.change(title, { target: { value: ' A vessel ' } });
  fireEvent.keyDown(title, { key: 'x' });
  fireEvent.keyDown(title, { key: 'Enter' });
  await waitFor(() =>
    expect(bench.tests.store.getState().scenarios.map((one) => one.scenario.title)).toEqual([
      'A vessel',
    ]),
  );
  await waitFor(() => expect(screen.queryByLabelText('Title')).toBeNull());
});

test('a title that is taken replaces the scenario of that title', async () => {
  const { bench } = await headOf({ scenarios: { 'a.json': PASSES } });
  await bench.form.step({ set: 'master', to: 'Oldane' });
  await bench.form.step({ set: 'vessel', to: 'Auk' });
  fireEvent.click(button('Keep as scenario'));
  const title = await screen.findByLabelText('Title');
  expect(screen.getByText(/the 2 steps done so far/)).toBeTruthy();
  fireEvent.change(title, { target: { value: 'Passes' } });
  fireEvent.click(button('Replace the one of this title'));
  await waitFor(() => {
    const { scenarios } = bench.tests.store.getState();
    expect(scenarios).toHaveLength(1);
    expect(scenarios[0]!.scenario.steps[0]).toEqual({ set: 'master', to: 'Oldane' });
  });
});

test('a window opens from the head and by its key, and Esc closes it', async () => {
  await headOf({ behaviours: { '10-a.ts': '/** Arrival: x */' } });
  fireEvent.click(button('Commands'));
  await screen.findByLabelText('Find a command');
  fireEvent.keyDown(screen.getByLabelText('Find a command'), { key: 'Escape' });
  await waitFor(() => expect(screen.queryByLabelText('Find a command')).toBeNull());
  fireEvent.keyDown(window, { key: 'b', altKey: true });
  expect(await screen.findByLabelText('Find a behaviour, or press its number')).toBeTruthy();
});

test('a former release is only looked at', async () => {
  const { bench } = benchOf({ form: VISIT });
  Object.assign(bench.core, { isReleased: true });
  await bench.form.begin();
  drawn(<BenchHead bench={bench} />);
  expect(
    screen.queryByRole('button', { name: /Make release|Keep as scenario|problems/ }),
  ).toBeNull();
  expect(button('Start again').disabled).toBe(false);
});
