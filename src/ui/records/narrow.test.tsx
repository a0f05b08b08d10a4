import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import { choice, number, text, yesNo } from '../../../tests/support/forms';
import type { Field } from '@/core/form/definition';
import { indexOf } from '@/core/form/table-index';
import { berths } from '../../../tests/support/forms';
import { Narrow } from './narrow';

function narrowed(field: Field, asked: Record<string, string> = {}) {
  const put = vi.fn<(key: string, value: string) => void>();
  drawn(
    <Narrow
      field={field}
      asked={asked}
      around={{ options: null, table: () => indexOf(berths) } as never}
      onPut={put}
    />,
  );
  return put;
}
const keysOf = (label: string) =>
  [...(screen.getByLabelText(label) as HTMLSelectElement).options].map(({ value }) => value);

test.each<[string, Field, string[]]>([
  ['a choice by its options', choice('kind', ['tug', 'ferry']), ['', 'tug', 'ferry']],
  ['yes or no by both', yesNo('paid'), ['', 'true', 'false']],
  [
    'a reference by the rows of its table',
    { kind: 'reference', name: 'berth', label: 'berth', table: 'berths' },
    ['', ...berths.rows.map(({ code }) => String(code))],
  ],
])('%s', (_, field, keys) => {
  const put = narrowed(field);
  expect(keysOf(`${field.label} is`)).toEqual(keys);
  fireEvent.change(screen.getByLabelText(`${field.label} is`), { target: { value: keys[1] } });
  expect(put).toHaveBeenCalledExactlyOnceWith(`is.${field.name}`, keys[1]);
});

test('a text by what it contains, a number by a range', () => {
  const ofText = narrowed(text('note'));
  fireEvent.change(screen.getByLabelText('Note contains'), { target: { value: 'tern' } });
  expect(ofText).toHaveBeenCalledExactlyOnceWith('is.note', 'tern');
  const ofNumber = narrowed(number('length'));
  fireEvent.change(screen.getByLabelText('Length from'), { target: { value: '80' } });
  fireEvent.change(screen.getByLabelText('Length to'), { target: { value: '120' } });
  expect(ofNumber.mock.calls).toEqual([
    ['from.length', '80'],
    ['to.length', '120'],
  ]);
});

test('a day narrows once it is one, and is taken away by emptying', () => {
  const put = narrowed(
    { kind: 'date', name: 'arrival', label: 'Arrival' },
    {
      'from.arrival': '2031-05-01',
    },
  );
  const from = screen.getByLabelText('Arrival from') as HTMLInputElement;
  expect(from.value).toBe('2031-05-01');
  for (const typed of ['2031-0', '2031-02-30', '2031-05-02', ''])
    fireEvent.change(from, { target: { value: typed } });
  expect(put.mock.calls).toEqual([
    ['from.arrival', '2031-05-02'],
    ['from.arrival', ''],
  ]);
  fireEvent.blur(from);
  expect(from.value).toBe('2031-05-01');
});
