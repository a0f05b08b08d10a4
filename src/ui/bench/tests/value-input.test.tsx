import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import type { Value } from '@/core/form/value';
import { drawn } from '../../../../tests/support/drawn';
import {
  choice,
  choices,
  formWith,
  number,
  reference,
  text,
  yesNo,
} from '../../../../tests/support/forms';
import { PartSelect } from './part-select';
import { entryOf, Shown, ValueInput, type ValueEntry } from './value-input';

const FORM = formWith([
  text('vessel'),
  number('draught'),
  yesNo('power'),
  choice('pilot', ['own', 'none']),
  choices('services', ['water', 'waste']),
  reference('berth', 'berths'),
  reference('quay', 'quays'),
]);
const rowsOf = (count: number) =>
  Array.from({ length: count }, (_, i) => ({ code: `b${i}`, name: `Berth ${i}` }));
const table = (name: string, count: number) => ({
  name,
  title: name,
  key: 'code',
  label: 'name',
  columns: [
    { name: 'code', kind: 'text' as const },
    { name: 'name', kind: 'text' as const },
  ],
  rows: rowsOf(count),
});
const MATERIAL = {
  tables: [table('berths', 60), table('quays', 61)],
  people: [{ key: 'mira', name: 'Mira' }],
};
const YES_NO = [
  { key: 'true', label: 'yes' },
  { key: 'false', label: 'no' },
];

test.each([
  ['power', 'value', YES_NO, true],
  ['power', 'shown', YES_NO, false],
  ['vessel', 'locked', YES_NO, false],
  ['vessel', 'value', null, true],
  ['draught', 'value', null, true],
  [
    'pilot',
    'value',
    [
      { key: 'own', label: 'Own' },
      { key: 'none', label: 'None' },
    ],
    true,
  ],
  ['pilot', 'hint', null, true],
  ['quay', 'value', null, true],
  ['@as', 'value', [{ key: 'mira', label: 'Mira' }], false],
] as const)('%s, its %s, is chosen from %j', (name, aspect, offered, empty) => {
  expect(entryOf(FORM, MATERIAL, name, aspect)).toMatchObject({ offered, empty });
});

test('rows of a table are offered by label, up to 60 of them', () => {
  const { offered, empty } = entryOf(FORM, MATERIAL, 'berth');
  expect([offered!.length, offered![1], empty]).toEqual([
    60,
    { key: 'b1', label: 'Berth 1' },
    true,
  ]);
  expect(entryOf(FORM, { ...MATERIAL, tables: [] }, 'berth').offered).toBeNull();
});

function inputOf(value: Value, entry: ValueEntry) {
  const onChange = vi.fn<(value: Value) => void>();
  drawn(<ValueInput value={value} entry={entry} label="It" onChange={onChange} />);
  const input = screen.getByLabelText<HTMLInputElement & HTMLSelectElement>('It');
  return {
    onChange,
    input,
    enter(to: string, by: 'blur' | 'Enter' | 'change' = 'blur') {
      fireEvent.change(input, { target: { value: to } });
      if (by === 'blur') fireEvent.blur(input);
      if (by === 'Enter') fireEvent.keyDown(input, { key: 'Enter' });
    },
  };
}

test('what is chosen is handed on by key; nothing is null, and yes or no are what they are', () => {
  const pilot = inputOf('own', entryOf(FORM, MATERIAL, 'pilot'));
  expect([...pilot.input.options].map(({ text: shown }) => shown)).toEqual([
    '(nothing)',
    'Own',
    'None',
  ]);
  pilot.enter('none', 'change');
  pilot.enter('', 'change');
  expect(pilot.onChange.mock.calls).toEqual([['none'], [null]]);
});

test.each([
  ['true', true],
  ['false', false],
])('%s is %s', (key, value) => {
  const { enter, onChange } = inputOf(null, entryOf(FORM, MATERIAL, 'power', 'shown'));
  enter(key, 'change');
  expect(onChange).toHaveBeenCalledExactlyOnceWith(value);
});

test('a value that is not offered stays, under its key', () => {
  const { input } = inputOf('tug', entryOf(FORM, MATERIAL, 'pilot'));
  expect(input.value).toBe('tug');
  expect([...input.options].at(-1)!.text).toBe('tug');
});

test('only what can be nothing offers it', () => {
  const { input } = inputOf('mira', entryOf(FORM, MATERIAL, '@as'));
  expect([...input.options].map(({ text: shown }) => shown)).toEqual(['Mira']);
});

test('what is written is handed on when left or by Enter, where it can be read and differs', () => {
  const { enter, onChange, input } = inputOf(4, entryOf(FORM, MATERIAL, 'draught'));
  enter('4.0');
  enter('deep');
  expect(screen.getByText(/^This takes/)).toBeTruthy();
  expect(input.getAttribute('aria-invalid')).toBe('true');
  expect(onChange).not.toHaveBeenCalled();
  enter('4.5', 'change');
  fireEvent.keyDown(input, { key: 'a' });
  expect(onChange).not.toHaveBeenCalled();
  enter('4.5', 'Enter');
  expect(onChange).toHaveBeenCalledExactlyOnceWith(4.5);
  expect(screen.queryByText(/^This takes/)).toBeNull();
});

test('a list is written even where options are offered', () => {
  const { input } = inputOf(['water'], {
    spelling: 'json',
    offered: [{ key: 'a', label: 'A' }],
    empty: true,
  });
  expect(input.tagName).toBe('INPUT');
});

test.each([
  [null, 'nothing'],
  [true, 'yes'],
  [false, 'no'],
  ['Tern', '“Tern”'],
  [4.5, '4.5'],
  [['a'], '["a"]'],
])('%j stands in a line as %s', (value, shown) => {
  const { container } = drawn(<Shown value={value} />);
  expect(container.textContent).toBe(shown);
});

test.each([
  ['', 'choose a part', ''],
  ['vessel', 'Vessel', 'vessel'],
  ['gone', 'gone', 'gone'],
])('with %j chosen, %s is shown', (value, shown, key) => {
  const onChange = vi.fn();
  drawn(<PartSelect form={FORM} label="Part" only="values" value={value} onChange={onChange} />);
  const select = screen.getByLabelText<HTMLSelectElement>('Part');
  expect([select.value, select.selectedOptions[0]!.text]).toEqual([
    key,
    expect.stringContaining(shown),
  ]);
  const isExtra = (name: string) => [...select.options].some(({ value: one }) => one === name);
  expect([isExtra(''), isExtra('gone')]).toEqual([value === '', value === 'gone']);
  fireEvent.change(select, { target: { value: 'draught' } });
  expect(onChange).toHaveBeenCalledExactlyOnceWith('draught');
});
