/** Rows on the sheet, over a real session: added, moved and removed by pointer and by keys. */
import { act, fireEvent, screen, within } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { sheetOf } from '../../../tests/support/sheet';

// Lists that draw only what is in view need something in view, and jsdom lays nothing out.
beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(2000);
  vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(2000);
  vi.spyOn(HTMLElement.prototype, 'offsetWidth', 'get').mockReturnValue(800);
  // As of CSSOM, for the names that rows have.
  vi.stubGlobal('CSS', { escape: (name: string) => name.replace(/[^\w-]/g, '\\$&') });
  vi.stubGlobal('requestAnimationFrame', (then: () => void) => void setTimeout(then, 0));
  return () => {
    vi.restoreAllMocks();
    vi.unstubAllGlobals();
  };
});

const CELLS = [text('goods'), number('weight'), choice('kind', ['dry', 'wet'])];
const cargo = (count: number) =>
  Array.from({ length: count }, (_, i) => ({ goods: `G${i}`, weight: i, kind: 'dry' }));

/** A form with so many rows of cargo. */
async function cargoOf(
  count: number,
  more: object = {},
  setting: { scripts?: Record<string, string> } = {},
) {
  const sheet = sheetOf({
    form: formWith([rows('cargo', CELLS, more)]),
    record: { id: '1', values: { cargo: cargo(count) } },
    ...setting,
  });
  await screen.findByText(new RegExp(`^${count} rows?`));
  return {
    ...sheet,
    goods: () =>
      screen.queryAllByLabelText<HTMLInputElement>(/^Goods, row/).map(({ value }) => value),
  };
}

const cell = (label: string) => screen.getByLabelText(label);
const settled = () => act(() => new Promise((resolve) => setTimeout(resolve, 20)));
const focused = () => document.activeElement?.getAttribute('aria-label');

test('a row is added below and has the focus, is moved, and removed', async () => {
  const { steps, goods } = await cargoOf(2);
  fireEvent.click(screen.getByRole('button', { name: 'Add a row' }));
  await settled();
  expect(goods()).toEqual(['G0', 'G1', '']);
  expect(focused()).toBe('Goods, row 3');
  fireEvent.click(screen.getByRole('button', { name: 'Move row 3 up' }));
  fireEvent.click(screen.getByRole('button', { name: 'Move row 1 down' }));
  fireEvent.click(screen.getByRole('button', { name: 'Remove row 2' }));
  await settled();
  expect(steps).toEqual([
    { addRow: 'cargo' },
    { moveRow: 'cargo[2]', to: 1 },
    { moveRow: 'cargo[0]', to: 1 },
    { removeRow: 'cargo[1]' },
  ]);
  expect(goods()).toEqual(['', 'G1']);
  expect(focused()).toBe('Goods, row 2');
});

test('with the last row gone the focus is where one can be added', async () => {
  await cargoOf(1);
  fireEvent.click(screen.getByRole('button', { name: 'Remove row 1' }));
  await settled();
  expect(document.activeElement?.textContent).toBe('Add a row');
  expect(screen.queryByRole('columnheader')).toBeNull();
  expect(screen.getByText(/^0 rows/)).toBeTruthy();
});

test('the first row cannot go up, nor the last down', async () => {
  await cargoOf(2);
  const can = (name: string) => !screen.getByRole<HTMLButtonElement>('button', { name }).disabled;
  expect([can('Move row 1 up'), can('Move row 1 down')]).toEqual([false, true]);
  expect([can('Move row 2 up'), can('Move row 2 down')]).toEqual([true, false]);
});

test('arrow keys and Enter go along a column; at its end Enter adds a row', async () => {
  const { steps } = await cargoOf(2);
  act(() => cell('Weight, row 1').focus());
  fireEvent.keyDown(cell('Weight, row 1'), { key: 'ArrowUp' });
  await settled();
  expect(focused()).toBe('Weight, row 1');
  fireEvent.keyDown(cell('Weight, row 1'), { key: 'ArrowDown' });
  await settled();
  expect(focused()).toBe('Weight, row 2');
  fireEvent.keyDown(cell('Weight, row 2'), { key: 'ArrowDown' });
  fireEvent.keyDown(cell('Weight, row 2'), { key: 'a' });
  await settled();
  expect(focused()).toBe('Weight, row 2');
  fireEvent.keyDown(cell('Weight, row 2'), { key: 'ArrowUp' });
  await settled();
  expect(focused()).toBe('Weight, row 1');
  fireEvent.keyDown(cell('Goods, row 1'), { key: 'Enter' });
  await settled();
  expect(focused()).toBe('Goods, row 2');
  expect(steps).toEqual([]);
  fireEvent.keyDown(cell('Goods, row 2'), { key: 'Enter' });
  await settled();
  expect(steps).toEqual([{ addRow: 'cargo' }]);
});

test('with Alt the arrow keys move the row, and the focus goes with it', async () => {
  const { steps, goods } = await cargoOf(3);
  act(() => cell('Weight, row 1').focus());
  fireEvent.keyDown(cell('Weight, row 1'), { key: 'ArrowUp', altKey: true });
  fireEvent.keyDown(cell('Weight, row 1'), { key: 'ArrowDown', altKey: true });
  await settled();
  expect(steps).toEqual([{ moveRow: 'cargo[0]', to: 1 }]);
  expect(goods()).toEqual(['G1', 'G0', 'G2']);
  expect(focused()).toBe('Weight, row 2');
});

test('a list keeps its arrow keys', async () => {
  await cargoOf(2);
  act(() => cell('Kind, row 1').focus());
  expect(fireEvent.keyDown(cell('Kind, row 1'), { key: 'ArrowDown' })).toBe(true);
  await settled();
  expect(focused()).toBe('Kind, row 1');
});

test('no more rows than the form allows', async () => {
  const { steps } = await cargoOf(2, { maxRows: 2 });
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add a row' }).disabled).toBe(true);
  fireEvent.keyDown(cell('Goods, row 2'), { key: 'Enter' });
  await settled();
  expect(steps).toEqual([]);
});

test('locked rows can be read and not changed', async () => {
  const { steps } = await cargoOf(2, { locked: true, required: true, addLabel: 'More cargo' });
  expect(screen.getByText('2 rows, required, locked')).toBeTruthy();
  for (const name of ['Move row 1 down', 'Remove row 1', 'More cargo'])
    expect(screen.getByRole<HTMLButtonElement>('button', { name }).disabled).toBe(true);
  fireEvent.keyDown(cell('Goods, row 1'), { key: 'ArrowDown', altKey: true });
  fireEvent.keyDown(cell('Goods, row 2'), { key: 'Enter' });
  await settled();
  expect(steps).toEqual([]);
});

test('rows that only scripts write offer nothing to change them by', async () => {
  await cargoOf(2, { scriptOnly: true });
  expect(screen.queryByRole('button', { name: /Add|Remove|Move/ })).toBeNull();
  expect(screen.getAllByRole('columnheader')).toHaveLength(3);
});

test('a row that a script locks cannot be removed, and one it finds fault with says so', async () => {
  await cargoOf(
    2,
    {},
    {
      scripts: {
        a: `keep.each(fields.cargo, (row) => {
        const first = row.fields.goods.value === "G0";
        row.locked = first;
        row.problem = first ? null : "Not allowed here.";
        row.warning = first ? "Known." : null;
      });`,
      },
    },
  );
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove row 1' }).disabled).toBe(
    true,
  );
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove row 2' }).disabled).toBe(
    false,
  );
  const [, first, second] = screen.getAllByRole('row');
  expect(within(second!).getByText('Not allowed here.')).toBeTruthy();
  expect(within(first!).getByText('Known.')).toBeTruthy();
  expect(within(first!).queryByText('Not allowed here.')).toBeNull();
});

test('one under the other on wish, and as a grid again; there Enter leaves the line as anywhere', async () => {
  const { steps } = await cargoOf(2);
  fireEvent.click(screen.getByRole('button', { name: 'Cargo one row under the other' }));
  expect(screen.getAllByRole('listitem').map((one) => one.getAttribute('aria-label'))).toEqual([
    'Row 1',
    'Row 2',
  ]);
  expect(screen.queryByRole('columnheader')).toBeNull();
  const [, second] = screen.getAllByLabelText('Goods');
  fireEvent.keyDown(second!, { key: 'Enter' });
  await settled();
  expect(steps).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Cargo as a grid' }));
  expect(screen.getAllByRole('columnheader').map((one) => one.textContent)).toEqual([
    'Goods',
    'Weight',
    'Kind',
    'Move and remove',
  ]);
});

test.each([
  [12, false],
  [13, true],
])('%i rows scroll by themselves: %s', async (count, scrolls) => {
  await cargoOf(count);
  expect(screen.queryByRole('region', { name: /Cargo/ }) !== null).toBe(scrolls);
});
