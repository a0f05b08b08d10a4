import { fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { seenAt } from '@/core/scenario/seen';
import { Tape } from '@/core/tape/tape';
import { BehaviourList } from './list';

beforeEach(() => {
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(() => vi.unstubAllGlobals());

async function list() {
  const { bench } = benchOf({
    behaviours: {
      '10-a.ts': '/** Greeting: says hello. */\non.load(() => log(1));',
      '20-b.ts': '/** Dues. */\non.load(() => log(2));',
    },
  });
  await bench.form.begin();
  const { answers, at } = bench.form.session.state;
  drawn(<BehaviourList bench={bench} seen={seenAt(answers, at)} tape={new Tape([])} />);
  return bench;
}
const titles = () =>
  screen
    .getAllByRole('button', { name: /^What to do with/ })
    .map((button) => button.getAttribute('aria-label'));

test('behaviours stand in their order, and are opened', async () => {
  const bench = await list();
  expect(titles()).toEqual(['What to do with Greeting', 'What to do with Dues']);
  expect(screen.queryByText('Shared modules')).toBeNull();
  fireEvent.click(screen.getByText('Dues'));
  expect(bench.code.store.getState().active).toBe('20-b.ts');
});

test('a new one is asked for its title; without one, or by Escape, nothing is added', async () => {
  const bench = await list();
  const before = bench.code.store.getState().behaviours.length;
  for (const leave of ['Enter', 'Escape']) {
    fireEvent.click(screen.getByText('+ new'));
    const title = await screen.findByLabelText('Title of the new behaviour');
    fireEvent.change(title, { target: { value: leave === 'Enter' ? '   ' : 'Tolls' } });
    fireEvent.keyDown(title, { key: leave });
    expect(screen.queryByLabelText('Title of the new behaviour')).toBeNull();
  }
  expect(bench.code.store.getState().behaviours).toHaveLength(before);
  fireEvent.click(screen.getByText('+ new'));
  fireEvent.change(screen.getByLabelText('Title of the new behaviour'), {
    target: { value: ' Tolls ' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  const { behaviours, active } = bench.code.store.getState();
  expect(behaviours).toHaveLength(before + 1);
  expect(behaviours.find(({ name }) => name === active)!.text).toContain('Tolls');
});
