import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { drawn } from '../../../../tests/support/drawn';
import { NumberLine } from './inputs';

function line(value?: number) {
  const change = vi.fn(() => true);
  drawn(
    <NumberLine
      definition={value === undefined ? {} : { max: value }}
      change={change}
      name="max"
      label="At most"
    />,
  );
  const input = screen.getByLabelText<HTMLInputElement>('At most');
  const enter = (text: string) => {
    fireEvent.change(input, { target: { value: text } });
    fireEvent.blur(input);
  };
  return { change, input, enter };
}

test.each([
  ['12', 12],
  ['1,200.5', 1200.5],
  ['-3', -3],
  ['0', 0],
])('%s becomes the limit %d', (text, limit) => {
  const { change, enter } = line();
  enter(text);
  expect(change).toHaveBeenCalledExactlyOnceWith({ max: limit });
});

test('an empty one takes the limit away', () => {
  const { change, enter } = line(7);
  enter('  ');
  expect(change).toHaveBeenCalledExactlyOnceWith({ max: undefined });
});

test('what is no number stays as it was typed, to be corrected', () => {
  const { change, input, enter } = line(7);
  enter('0x10');
  expect(change).not.toHaveBeenCalled();
  expect(input.value).toBe('0x10');
});
