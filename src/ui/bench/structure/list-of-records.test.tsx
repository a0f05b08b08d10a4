import { fireEvent, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { drawn } from '../../../../tests/support/drawn';
import { ListOfRecords } from './list-of-records';

const OTHERS = [
  { name: 'cargo', title: 'Cargo', fields: [{ key: 'call', label: 'Call' }] },
  {
    name: 'pilotage',
    title: 'Pilotage',
    fields: [
      { key: 'visit', label: 'Visit' },
      { key: 'pilot', label: 'Pilot' },
    ],
  },
  { name: 'empty', title: 'Empty', fields: [] },
];

test('another form brings its own first field, so that nothing of the former one is left', () => {
  const change = vi.fn(() => true);
  drawn(
    <ListOfRecords
      definition={{ form: 'cargo', field: 'call', launch: 'call', columns: ['call'] }}
      change={change}
      others={OTHERS}
    />,
  );
  const list = screen.getByLabelText('Records of');
  fireEvent.change(list, { target: { value: 'pilotage' } });
  expect(change).toHaveBeenCalledExactlyOnceWith({
    form: 'pilotage',
    field: 'visit',
    launch: 'visit',
    columns: ['visit'],
  });
  fireEvent.change(list, { target: { value: 'empty' } });
  expect(change).toHaveBeenCalledTimes(1);
});
