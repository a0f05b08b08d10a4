import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { drawn } from '../../tests/support/drawn';
import { WindowFrame } from './window-frame';

const framed = (open: boolean, onClose: () => void) => (
  <WindowFrame open={open} onClose={onClose} titledBy="t" before={null}>
    <h2 id="t">Opening</h2>
    <button type="button">Apply</button>
  </WindowFrame>
);

test('a window is closed by Escape, once, and opening it closes nothing', async () => {
  const user = userEvent.setup();
  const close = vi.fn();
  drawn(framed(true, close));
  await screen.findByRole('dialog', { name: 'Opening' });
  expect(close).not.toHaveBeenCalled();
  await user.keyboard('{Escape}');
  expect(close).toHaveBeenCalledTimes(1);
});

test('one that is not open shows nothing', () => {
  drawn(framed(false, () => undefined));
  expect(screen.queryByRole('dialog')).toBeNull();
});
