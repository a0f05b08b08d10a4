import { fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { drawn } from '../../../tests/support/drawn';
import type { Table } from '@/core/form/table';
import { TablePage } from './table-page';

// Only rows in view are drawn, and nothing has a height here.
beforeEach(() => {
  for (const [side, length] of [
    ['clientHeight', 560],
    ['clientWidth', 900],
  ] as const)
    vi.spyOn(Element.prototype, side, 'get').mockReturnValue(length);
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

const BERTHS: Table = {
  name: 'berths',
  title: 'Berths',
  key: 'code',
  label: 'called',
  columns: [
    { name: 'code', kind: 'text' },
    { name: 'called', kind: 'text' },
    { name: 'depth', label: 'Depth', kind: 'number' },
    { name: 'dredged', kind: 'date' },
    { name: 'power', kind: 'yes_no' },
  ],
  rows: [{ code: 'n1', called: 'North 1', depth: 4.5, dredged: null, power: false }],
};

/** The page, with what it sends. */
function page() {
  const sent: Table[] = [];
  vi.stubGlobal('fetch', (_: string, { body }: { body: string }) => {
    sent.push((JSON.parse(body) as { table: Table }).table);
    return Promise.resolve(Response.json({ revision: sent.length + 1 }));
  });
  drawn(<TablePage workspace="Harbour" table={BERTHS} revision={1} />);
  const cell = (name: string) => screen.getByLabelText(name) as HTMLInputElement;
  return {
    cell,
    enter(name: string, text: string) {
      fireEvent.change(cell(name), { target: { value: text } });
      fireEvent.blur(cell(name));
    },
    last: () => waitFor(() => sent.at(-1) ?? Promise.reject(new Error('nothing was sent'))),
    sent,
  };
}

test('cells are saved as values of their column', async () => {
  const { enter, cell, last } = page();
  enter('Depth, row 1', '12.5');
  enter('dredged, row 1', '2031-05-02');
  fireEvent.change(cell('power, row 1'), { target: { value: 'yes' } });
  enter('called, row 1', 'North quay');
  await waitFor(async () =>
    expect((await last()).rows).toEqual([
      { code: 'n1', called: 'North quay', depth: 12.5, dredged: '2031-05-02', power: true },
    ]),
  );
});

test('an empty cell is nothing', async () => {
  const { enter, cell, last } = page();
  enter('Depth, row 1', '');
  fireEvent.change(cell('power, row 1'), { target: { value: '' } });
  await waitFor(async () =>
    expect((await last()).rows[0]).toMatchObject({ depth: null, power: null }),
  );
});

test('what is no value of the column stays as typed, is marked and is not saved', async () => {
  const { enter, cell, sent } = page();
  enter('Depth, row 1', 'deep');
  expect(cell('Depth, row 1').value).toBe('deep');
  expect(cell('Depth, row 1').getAttribute('aria-invalid')).toBe('true');
  expect(cell('Depth, row 1').title).toBe('This is not a number.');
  enter('dredged, row 1', '2031-02-30');
  expect(cell('dredged, row 1').title).toBe('This is not a date spelled YYYY-MM-DD.');
  fireEvent.keyDown(cell('Depth, row 1'), { key: 'Escape' });
  expect(cell('Depth, row 1').value).toBe('4.5');
  expect(sent).toEqual([]);
});

test('rows and columns are added with nothing in them, and rows removed', async () => {
  const { last } = page();
  fireEvent.click(screen.getByRole('button', { name: 'Add a row' }));
  await waitFor(async () =>
    expect((await last()).rows.at(-1)).toEqual({
      code: 'new_2',
      called: null,
      depth: null,
      dredged: null,
      power: null,
    }),
  );
  const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add column' });
  const name = screen.getByLabelText('New column');
  for (const taken of ['depth', 'Not a name', 'constructor']) {
    fireEvent.change(name, { target: { value: taken } });
    expect(add.disabled, taken).toBe(true);
  }
  fireEvent.change(name, { target: { value: 'length' } });
  fireEvent.change(screen.getByLabelText('Kind of the new column'), {
    target: { value: 'number' },
  });
  fireEvent.click(add);
  await waitFor(async () => {
    const { columns, rows } = await last();
    expect(columns.at(-1)).toEqual({ name: 'length', kind: 'number' });
    expect(rows.map((row) => row.length)).toEqual([null, null]);
  });
  fireEvent.click(screen.getByRole('button', { name: 'Remove row 1' }));
  await waitFor(async () => expect((await last()).rows.map(({ code }) => code)).toEqual(['new_2']));
});
