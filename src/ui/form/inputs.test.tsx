/** What each kind of input shows, reads and hands on. */
import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import type { Field } from '@/core/form/definition';
import type { Value } from '@/core/form/value';
import { drawn } from '../../../tests/support/drawn';
import {
  choice,
  choices,
  date,
  datetime,
  money,
  number,
  reference,
  text,
  time,
  yesNo,
} from '../../../tests/support/forms';
import type { InputProps } from './input';
import { FieldInput, LIST_AT_MOST } from './inputs';

function inputOf(field: Field, more: Partial<InputProps> = {}) {
  const onCommit = vi.fn<(value: Value) => void>();
  const props: InputProps = {
    field,
    id: 'it',
    label: 'It',
    value: null,
    options: 'options' in field ? field.options : [],
    zone: 'UTC',
    editable: true,
    required: false,
    invalid: false,
    describedBy: undefined,
    marked: false,
    upload: null,
    onCommit,
    onType: null,
    onFocus: () => undefined,
    onBlur: () => undefined,
    ...more,
  };
  const view = drawn(<FieldInput {...props} />);
  return {
    onCommit,
    again: (changed: Partial<InputProps>) => view.rerender(<FieldInput {...props} {...changed} />),
  };
}

const line = () => screen.getByLabelText<HTMLInputElement>('It');
function type(written: string) {
  fireEvent.change(line(), { target: { value: written } });
  fireEvent.blur(line());
}

test('a line is handed on when it is left or Enter is pressed, and only where it differs', () => {
  const onBlur = vi.fn();
  const { onCommit } = inputOf(text('vessel'), { value: 'Tern', onBlur });
  expect(line().value).toBe('Tern');
  fireEvent.blur(line());
  expect(onCommit).not.toHaveBeenCalled();
  expect(onBlur).toHaveBeenCalledTimes(1);
  fireEvent.change(line(), { target: { value: 'Tern of Garrel' } });
  fireEvent.keyDown(line(), { key: 'a' });
  expect(onCommit).not.toHaveBeenCalled();
  fireEvent.keyDown(line(), { key: 'Enter' });
  expect(onCommit).toHaveBeenCalledExactlyOnceWith('Tern of Garrel');
  type('');
  expect(onCommit).toHaveBeenLastCalledWith(null);
  // Left with something new, it is handed on instead.
  expect(onBlur).toHaveBeenCalledTimes(1);
});

test('each keystroke is told where somebody listens, as far as it can be read', () => {
  const onType = vi.fn();
  inputOf(number('draught'), { onType });
  fireEvent.change(line(), { target: { value: '4.' } });
  fireEvent.change(line(), { target: { value: '4.x' } });
  fireEvent.change(line(), { target: { value: '4.5' } });
  expect(onType.mock.calls.map(([value]) => value as Value)).toEqual([4, 4.5]);
});

test('what the form says takes the place of what is typed once the value changes', () => {
  const { again } = inputOf(text('vessel'), { value: 'Tern' });
  fireEvent.change(line(), { target: { value: 'Ter' } });
  again({ value: 'Tern', required: true });
  expect(line().value).toBe('Ter');
  again({ value: 'Auk' });
  expect(line().value).toBe('Auk');
});

test('a number is read as it is written here; what is none stays, and is said to be wrong', () => {
  const { onCommit } = inputOf(number('draught'));
  expect(line().inputMode).toBe('decimal');
  type('deep');
  expect(onCommit).not.toHaveBeenCalled();
  expect(line().value).toBe('deep');
  expect(line().getAttribute('aria-invalid')).toBe('true');
  expect(screen.getByRole('alert').textContent).toBe('"deep" is not a number.');
  type('1,234.5');
  expect(onCommit).toHaveBeenCalledExactlyOnceWith(1234.5);
  expect(screen.queryByRole('alert')).toBeNull();
});

test('a wrong text that is taken back is wrong no more, and is not handed on', () => {
  const { onCommit } = inputOf(number('draught'), { value: 4 });
  type('deep');
  expect(screen.queryByRole('alert')).not.toBeNull();
  type('4');
  expect(screen.queryByRole('alert')).toBeNull();
  expect(onCommit).not.toHaveBeenCalled();
  type(' ');
  expect(onCommit).toHaveBeenCalledExactlyOnceWith(null);
});

test.each([
  [money('dues'), 1234.5, '1234.50'],
  [money('dues', { decimals: 0 }), 12, '12'],
  [number('draught', { decimals: 3 }), 4.5, '4.500'],
  [number('draught'), 4.25, '4.25'],
])('%o shows its decimals', (field, value, shown) => {
  inputOf(field, { value });
  expect(line().value).toBe(shown);
});

test('a text of several lines is an area; of one, a line', () => {
  inputOf(text('note', { lines: 3 }));
  expect(line().tagName).toBe('TEXTAREA');
  expect(line().getAttribute('rows')).toBe('3');
  inputOf(text('other', { lines: 1 }), { label: 'Other' });
  expect(screen.getByLabelText('Other').tagName).toBe('INPUT');
});

test('an address of e-mail brings the keyboard for it, and a plain text none', () => {
  inputOf(text('contact', { format: 'email' }));
  expect(line().inputMode).toBe('email');
  inputOf(text('vessel'), { label: 'Vessel' });
  expect(screen.getByLabelText('Vessel').hasAttribute('inputmode')).toBe(false);
});

test('a mask spells what is typed', () => {
  const { onCommit, again } = inputOf(text('licence', { mask: 'AA-999' }));
  type('qh123');
  expect(onCommit).toHaveBeenCalledExactlyOnceWith('QH-123');
  again({ value: 'QH-123' });
  type('');
  expect(onCommit).toHaveBeenLastCalledWith(null);
});

test.each([
  [date('arrival'), '2031/5/2', '2031-05-02', 'YYYY-MM-DD'],
  [time('at'), '9:05', '09:05', 'HH:MM'],
  [datetime('at'), '2031-5-2 9:05', '2031-05-02T09:05:00Z', 'YYYY-MM-DD HH:MM'],
])('%o is read with any common separator', (field, written, value, looks) => {
  const { onCommit } = inputOf(field);
  expect(line().placeholder).toBe(looks);
  type('soon');
  expect(screen.getByRole('alert').textContent).toBe(`"soon" is not written as ${looks}.`);
  type(written);
  expect(onCommit).toHaveBeenCalledExactlyOnceWith(value);
});

test('a moment is shown and read as clocks show it in the zone of the session', () => {
  const { onCommit } = inputOf(datetime('at'), {
    value: '2031-07-02T09:00:00Z',
    zone: 'Europe/Vienna',
  });
  expect(line().value).toBe('2031-07-02 11:00');
  type('2031-07-02 12:30');
  expect(onCommit).toHaveBeenCalledExactlyOnceWith('2031-07-02T10:30:00Z');
});

test('an emptied date is none', () => {
  const { onCommit } = inputOf(date('arrival'), { value: '2031-05-02' });
  type('  ');
  expect(onCommit).toHaveBeenCalledExactlyOnceWith(null);
});

test('a day can be picked beside a date that stands alone and can be changed', () => {
  const picker = () => document.querySelector<HTMLInputElement>('input[type=date]');
  const { onCommit } = inputOf(date('arrival'), { label: undefined });
  fireEvent.change(picker()!, { target: { value: '2031-05-02' } });
  fireEvent.change(picker()!, { target: { value: '' } });
  expect(onCommit.mock.calls).toEqual([['2031-05-02']]);
  const show = vi.fn();
  picker()!.showPicker = show;
  fireEvent.click(screen.getByTitle('Choose a day'));
  expect(show).toHaveBeenCalledTimes(1);
});

test.each([
  ['in a grid', date('arrival'), {}],
  ['that is locked', date('arrival'), { label: undefined, editable: false }],
  ['of the clock', time('at'), { label: undefined }],
])('no day is picked beside one %s', (_, field, more) => {
  inputOf(field, more);
  expect(document.querySelector('input[type=date]')).toBeNull();
  const [input] = document.querySelectorAll('input');
  expect(input!.placeholder === '').toBe('editable' in more);
});

test('a list begins empty unless said otherwise, and keeps a key that is no longer offered', () => {
  const labels = () => [...line().querySelectorAll('option')].map((one) => one.textContent);
  const { onCommit, again } = inputOf(choice('pilot', ['own', 'none']));
  expect(labels()).toEqual(['', 'Own', 'None']);
  fireEvent.change(line(), { target: { value: 'own' } });
  again({ value: 'tug' });
  expect(labels()).toEqual(['', 'tug (no longer offered)', 'Own', 'None']);
  fireEvent.change(line(), { target: { value: '' } });
  expect(onCommit.mock.calls).toEqual([['own'], [null]]);
});

test('a list without an empty entry has one only as long as nothing is chosen, which nobody can choose', () => {
  const field = choice('pilot', ['own', 'none'], { blank: false });
  const { again } = inputOf(field);
  const [first] = line().querySelectorAll('option');
  expect([first!.value, first!.disabled, first!.hidden]).toEqual(['', true, true]);
  again({ value: 'own' });
  expect(line().querySelectorAll('option')).toHaveLength(2);
});

test('yes or no is neither until somebody says', () => {
  const { onCommit, again } = inputOf(yesNo('shore_power'));
  const [yes, no] = screen.getAllByRole<HTMLInputElement>('radio');
  expect([yes!.checked, no!.checked]).toEqual([false, false]);
  fireEvent.click(no!);
  expect(onCommit).toHaveBeenCalledExactlyOnceWith(false);
  again({ value: true });
  expect([yes!.checked, no!.checked]).toEqual([true, false]);
});

test('radio buttons offer none only where it is said', () => {
  const field = choice('pilot', ['own', 'tug'], { display: 'radios' });
  const { onCommit } = inputOf(field);
  expect(screen.getAllByRole('radio')).toHaveLength(2);
  fireEvent.click(screen.getByLabelText('Tug'));
  expect(onCommit).toHaveBeenCalledExactlyOnceWith('tug');
  inputOf({ ...field, blank: true } as Field, { id: 'other' });
  expect(screen.getByLabelText('None')).toBeTruthy();
});

test('boxes add and take away keys; one that is no longer offered can only be taken away', () => {
  const { onCommit } = inputOf(choices('services', ['water', 'waste']), {
    value: ['water', 'bunker'],
  });
  const boxes = screen.getAllByRole<HTMLInputElement>('checkbox');
  expect(boxes.map(({ checked }) => checked)).toEqual([true, false, true]);
  expect(screen.getByLabelText('bunker (no longer offered)')).toBe(boxes[2]);
  fireEvent.click(screen.getByLabelText('Waste'));
  fireEvent.click(boxes[2]!);
  expect(onCommit.mock.calls).toEqual([[['water', 'bunker', 'waste']], [['water']]]);
});

const rowsOf = (count: number) =>
  Array.from({ length: count }, (_, i) => ({ key: `b${i}`, label: `Berth ${i}` }));

test.each([
  [LIST_AT_MOST, undefined, 'SELECT'],
  [LIST_AT_MOST + 1, undefined, 'INPUT'],
  [2, 'search', 'INPUT'],
  [LIST_AT_MOST + 1, 'list', 'SELECT'],
])('a reference to %i rows, shown as %s, is a %s', (count, display, tag) => {
  inputOf(reference('berth', 'berths', display === undefined ? {} : { display }), {
    options: rowsOf(count),
    value: 'b1',
  });
  expect(line().tagName).toBe(tag);
  expect(line().value).toBe(tag === 'SELECT' ? 'b1' : 'Berth 1');
});

test('nothing can be entered into what is locked', () => {
  inputOf(text('vessel'), { editable: false });
  expect(line().readOnly).toBe(true);
  inputOf(choice('pilot', ['own']), { editable: false, label: 'Pilot' });
  expect(screen.getByLabelText<HTMLSelectElement>('Pilot').disabled).toBe(true);
  inputOf(choices('services', ['water']), { editable: false, id: 'services' });
  inputOf(yesNo('shore_power'), { editable: false, id: 'power' });
  for (const role of ['checkbox', 'radio'] as const)
    for (const one of screen.getAllByRole<HTMLInputElement>(role)) expect(one.disabled).toBe(true);
});
