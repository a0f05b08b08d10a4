// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { benchOf } from '../../../../tests/support/bench';
import { drawn } from '../../../../tests/support/drawn';
import { namesFor } from '@/core/tape/words';
import { VISIT } from '../../../../tests/support/bench';
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
