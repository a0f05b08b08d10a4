import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { FieldSchema } from '@/core/form/definition';
import { drawn } from '../../../../tests/support/drawn';
import { Limits } from './limits';

const BERTHS = {
  name: 'berths',
  title: 'Berths',
  key: 'id',
  label: 'title',
  columns: [
    { name: 'id', kind: 'text' as const },
    { name: 'title', kind: 'text' as const },
  ],
  rows: [{ id: 'north', title: 'North quay' }],
};

/** What can be entered into each input, so that something changes. */
function changed(definition: Record<string, unknown>): Set<string> {
  const keys = new Set<string>();
  const change = vi.fn((to: object) => {
    for (const key of Object.keys(to)) keys.add(key);
    return true;
  });
  const { container } = drawn(
    <Limits kind={definition.kind as string} shared={{ definition, change }} tables={[BERTHS]} />,
  );
  for (const input of container.querySelectorAll('input')) {
    if (input.type === 'checkbox') fireEvent.click(input);
    else {
      const value = { date: '2031-05-02', time: '09:00' }[input.type] ?? '7';
      fireEvent.change(input, { target: { value } });
      fireEvent.blur(input);
    }
  }
  for (const select of container.querySelectorAll('select'))
    fireEvent.change(select, {
      target: { value: select.options[select.options.length - 1]!.value },
    });
  return keys;
}

/** What only some kinds have beside what every field has. */
const shapes = FieldSchema.options.map(({ shape }) => ({
  kind: shape.kind.value,
  names: Object.keys(shape),
}));
const common = new Set(
  shapes[0]!.names.filter((name) => shapes.every(({ names }) => names.includes(name))),
);
/** Edited as lists of their own, beside. */
const LISTS = new Set(['options', 'fields']);

test.each(shapes)('everything that only a $kind field has can be set', ({ kind, names }) => {
  const options = [{ key: 'salt', label: 'Salt' }];
  const own = names.filter((name) => !common.has(name) && !LISTS.has(name));
  expect(changed({ kind, options, table: 'berths' })).toEqual(new Set(own));
});

test('a section has columns, and a track the stage it begins at', () => {
  expect(changed({ kind: 'section' })).toEqual(new Set(['columns']));
  const stages = [{ key: 'asked', label: 'Asked' }];
  expect(changed({ kind: 'track', stages })).toEqual(new Set(['stage']));
});

test('a part of another kind has no limits', () => {
  expect(changed({ kind: 'button' })).toEqual(new Set());
});

test('another table takes the default with it, which is a key of the former one', () => {
  const change = vi.fn(() => true);
  const quays = { ...BERTHS, name: 'quays', title: 'Quays' };
  drawn(
    <Limits
      kind="reference"
      shared={{ definition: { kind: 'reference', table: 'berths', default: 'north' }, change }}
      tables={[BERTHS, quays]}
    />,
  );
  fireEvent.change(screen.getByLabelText('Table'), { target: { value: 'quays' } });
  expect(change).toHaveBeenCalledExactlyOnceWith({ table: 'quays', default: undefined });
});

test('the default of a long table is a key that is typed', () => {
  const rows = Array.from({ length: 501 }, (_, i) => ({ id: `b${i}`, title: `Berth ${i}` }));
  drawn(
    <Limits
      kind="reference"
      shared={{ definition: { kind: 'reference', table: 'berths' }, change: () => true }}
      tables={[{ ...BERTHS, rows }]}
    />,
  );
  expect(screen.getByLabelText('Default, a key of the table').tagName).toBe('INPUT');
});

test('a size is read and shown in MiB, and kept in bytes', () => {
  const change = vi.fn(() => true);
  drawn(
    <Limits
      kind="file"
      shared={{ definition: { kind: 'file', maxBytes: 1_572_864 }, change }}
      tables={[]}
    />,
  );
  const size = screen.getByLabelText<HTMLInputElement>('Size of each at most, in MiB');
  expect(size.value).toBe('1.5');
  fireEvent.change(size, { target: { value: '2' } });
  fireEvent.blur(size);
  expect(change).toHaveBeenLastCalledWith({ maxBytes: 2_097_152 });
});

test('media types are split by commas, spaces and semicolons; none is no limit', () => {
  const change = vi.fn(() => true);
  drawn(<Limits kind="file" shared={{ definition: { kind: 'file' }, change }} tables={[]} />);
  const types = screen.getByLabelText('Types, such as application/pdf, image/*');
  fireEvent.change(types, { target: { value: 'Application/PDF, image/*;text/plain' } });
  fireEvent.blur(types);
  expect(change).toHaveBeenLastCalledWith({ types: ['application/pdf', 'image/*', 'text/plain'] });
  fireEvent.change(types, { target: { value: ' ' } });
  fireEvent.blur(types);
  expect(change).toHaveBeenLastCalledWith({ types: undefined });
});
