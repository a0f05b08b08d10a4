import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf, VISIT } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { namesFor } from '@/core/tape/words';
import { ValuesPane } from './values-pane';
import { WatchesPane } from './watches-pane';

afterEach(() => vi.unstubAllGlobals());

test('an expression is watched by Enter, once, and can be taken away', async () => {
  const { bench } = benchOf();
  drawn(<WatchesPane bench={bench} names={namesFor(VISIT, [], [])} />);
  const input = screen.getByLabelText<HTMLInputElement>('Watch an expression');
  const enter = (text: string, key = 'Enter') => {
    fireEvent.change(input, { target: { value: text } });
    fireEvent.keyDown(input, { key });
  };
  enter('fields.vessel.value', 'a');
  enter('   ');
  expect(bench.tape.store.getState().watches).toEqual([]);
  enter(' fields.vessel.value ');
  await waitFor(() => expect(bench.tape.store.getState().watches).toEqual(['fields.vessel.value']));
  expect(input.value).toBe('');
  fireEvent.click(screen.getByRole('button', { name: 'Remove the watch fields.vessel.value' }));
  await waitFor(() => expect(bench.tape.store.getState().watches).toEqual([]));
});

test('asking about a part opens the tape at what concerns it; the form as a whole is no part', async () => {
  const { bench } = benchOf();
  await bench.form.begin();
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  const { getState } = bench.tape.store;
  expect(getState().open).toBe(false);
  bench.tape.ask('vessel', 'value');
  expect(getState()).toMatchObject({ open: true, filter: { part: 'vessel' } });
  bench.tape.ask('@submit', 'outcome');
  expect(getState()).toMatchObject({ open: true, filter: { part: null } });
  bench.tape.showDrawer(false);
  expect(getState().open).toBe(false);
});

test('values are those that scripts said something of, those that changed, those that would be sent, or all', async () => {
  const { bench } = benchOf({
    behaviours: { '10-a.ts': 'on.load(() => { fields.master.hint = "Whoever signs."; });' },
  });
  await bench.form.begin();
  await bench.form.step({ set: 'vessel', to: 'Tern' });
  bench.tape.showDrawer(true, 'values');
  drawn(<ValuesPane bench={bench} names={namesFor(VISIT, [], [])} />);
  const list = await screen.findByLabelText('Which values');
  const shown = (scope: string) => {
    fireEvent.change(list, { target: { value: scope } });
    return ['vessel', 'master'].filter((part) => screen.queryByTitle(`${part}: ask why`) !== null);
  };
  expect(shown('said')).toEqual(['master']);
  expect(shown('changed')).toEqual(['vessel']);
  expect(shown('all')).toEqual(['vessel', 'master']);
  expect(shown('sent')).toContain('vessel');
});
