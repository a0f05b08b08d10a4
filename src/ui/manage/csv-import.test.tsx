import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { answering } from '../../../tests/support/answering';
import { drawn } from '../../../tests/support/drawn';
import type { Table } from '@/core/form/table';
import { CsvImport } from './csv-import';

type TableColumn = Table['columns'][number];

const SPELLING = { delimiter: ',', decimal: '.', dates: 'ymd' };
const GUESS = {
  columns: [
    { name: 'code', kind: 'text' },
    { name: 'depth', kind: 'number' },
    { name: 'power', kind: 'yes_no' },
  ],
  key: 'code',
  rows: 2,
  spelling: SPELLING,
};
const ROWS = [
  { code: 'nq1', depth: 4.5, power: true },
  { code: 'nq2', depth: null, power: false },
];
const OWN: TableColumn[] = [
  { name: 'code', kind: 'text', label: 'Code' },
  { name: 'depth', kind: 'number' },
  { name: 'built', kind: 'date' },
];

interface Asked {
  file: string;
  text: string;
  columns?: unknown;
  key?: string;
  spelling?: unknown;
}

/** The import, with what it asks and hands on. */
function importing(
  preview: object | ((asked: Asked) => object),
  columns: TableColumn[] | null = null,
  tableKey: string | null = null,
) {
  const sent = answering(({ body }) => ({
    body:
      typeof preview === 'function' ? (preview as (a: Asked) => object)(body as Asked) : preview,
  }));
  const onTake = vi.fn();
  const onDone = vi.fn();
  drawn(<CsvImport columns={columns} tableKey={tableKey} onTake={onTake} onDone={onDone} />);
  const asked = () =>
    sent.filter(({ path }) => path.endsWith('/preview')).map(({ body }) => body as Asked);
  return { asked, onTake, onDone };
}

function pick(content: string | number[], name = 'berths.csv') {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  const file = new File([new Uint8Array(bytes)], name);
  // jsdom’s files cannot be read this way.
  file.arrayBuffer = () => Promise.resolve(new Uint8Array(bytes).buffer);
  fireEvent.change(screen.getByLabelText(/^CSV file/), { target: { files: [file] } });
}
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });

test('a new table is made of what the file has, by the key that was guessed', async () => {
  const { asked, onTake } = importing({ guess: GUESS, rows: ROWS, errors: [] });
  pick('code,depth,power\nnq1,4.5,yes\n');
  await screen.findByText('2 rows.');
  expect(asked()).toEqual([{ file: 'berths.csv', text: 'code,depth,power\nnq1,4.5,yes\n' }]);
  expect(screen.getAllByRole('cell').map((one) => one.textContent)).toEqual([
    'nq1',
    '4.5',
    'yes',
    'nq2',
    '',
    'no',
  ]);
  expect(screen.queryByText('Add rows with new keys')).toBeNull();
  fireEvent.click(button('Make the table'));
  expect(onTake).toHaveBeenCalledExactlyOnceWith(
    { columns: GUESS.columns, key: 'code', rows: ROWS },
    'replace',
  );
});

test('without a column that tells rows apart the first is the key', async () => {
  const { onTake } = importing({ guess: { ...GUESS, key: null }, rows: ROWS, errors: [] });
  pick('x');
  fireEvent.click(await screen.findByText('Make the table'));
  expect(onTake.mock.calls[0]![0]).toMatchObject({ key: 'code' });
});

test('a table keeps its columns and their kinds; new ones come after, what the file lacks is empty', async () => {
  const { asked, onTake } = importing(
    ({ columns }) => ({
      guess:
        columns === undefined
          ? {
              ...GUESS,
              columns: [GUESS.columns[0], { name: 'depth', kind: 'text' }, GUESS.columns[2]],
            }
          : GUESS,
      rows: ROWS,
      errors: [],
    }),
    OWN,
    'code',
  );
  pick('x');
  await screen.findByText(/New columns: power\. Left empty: built\./);
  expect(asked()).toHaveLength(2);
  expect(asked()[1]).toMatchObject({
    key: 'code',
    columns: [OWN[0], OWN[1], GUESS.columns[2]],
  });
  fireEvent.click(button('Add rows with new keys'));
  expect(onTake).toHaveBeenCalledExactlyOnceWith(
    {
      columns: [...OWN, GUESS.columns[2]],
      key: 'code',
      rows: ROWS.map((row) => ({ ...row, built: null })),
    },
    'add',
  );
  fireEvent.click(button('Replace all rows'));
  expect(onTake.mock.calls[1]![1]).toBe('replace');
});

test('without the key of the table nothing can be taken', async () => {
  importing({ guess: GUESS, rows: ROWS, errors: [] }, [...OWN, { name: 'id', kind: 'text' }], 'id');
  pick('x');
  await screen.findByText('The key id is missing.');
  expect(button('Replace all rows').disabled).toBe(true);
  expect(button('Add rows with new keys').disabled).toBe(true);
});

test('another kind of a column, or another spelling, is read anew', async () => {
  const { asked } = importing({ guess: GUESS, rows: ROWS, errors: [] });
  pick('x');
  fireEvent.change(await screen.findByLabelText('Kind of depth'), { target: { value: 'text' } });
  await waitFor(() => expect(asked()).toHaveLength(2));
  expect(asked()[1]).toMatchObject({
    columns: [GUESS.columns[0], { name: 'depth', kind: 'text' }, GUESS.columns[2]],
    spelling: SPELLING,
  });
  for (const [label, value] of [
    ['Cells are separated by', ';'],
    ['decimals by', ','],
    ['dates are', 'dmy'],
  ] as const)
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  await waitFor(() => expect(asked()).toHaveLength(5));
  expect(
    asked()
      .slice(2)
      .map(({ spelling }) => spelling),
  ).toEqual([
    { ...SPELLING, delimiter: ';' },
    { ...SPELLING, decimal: ',' },
    { ...SPELLING, dates: 'dmy' },
  ]);
  // What was guessed before is no longer told.
  expect(asked()[2]).not.toHaveProperty('columns');
});

test.each([1, 2, 13])('%i cells that do not fit stop it, with their places', async (count) => {
  const errors = Array.from({ length: count }, (_, i) => ({
    line: i + 2,
    path: i === 0 ? ['depth'] : [],
    says: 'is not a number',
  }));
  importing({ guess: GUESS, rows: ROWS, errors });
  pick('x');
  await screen.findByText(
    count === 1 ? /One cell does not fit:/ : new RegExp(`${count} cells do not fit:`),
  );
  expect(screen.getByText('line 2, depth: is not a number')).toBeTruthy();
  expect(screen.queryAllByText(/^line \d+: is not a number$/)).toHaveLength(
    Math.min(count, 12) - 1,
  );
  expect(button('Make the table').disabled).toBe(true);
});

test('a file that is no table says where', async () => {
  importing({ guess: null, rows: [], errors: [{ line: 3, path: [], says: 'has more cells' }] });
  pick('x');
  expect((await screen.findByRole('alert')).textContent).toContain('Line 3: has more cells.');
  expect(screen.queryByRole('button', { name: 'Make the table' })).toBeNull();
});

test.each([
  ['UTF-8', [0x71, 0xc3, 0xbc], 'qü'],
  ['UTF-16, little end first', [255, 254, 0x71, 0, 0xfc, 0], 'qü'],
  ['UTF-16, big end first', [254, 255, 0, 0x71, 0, 0xfc], 'qü'],
  ['what Windows wrote', [0x71, 0xfc], 'qü'],
])('a file in %s is read', async (_, bytes, text) => {
  const { asked } = importing({ guess: GUESS, rows: ROWS, errors: [] });
  pick(bytes);
  await screen.findByText('2 rows.');
  expect(asked()[0]!.text.replace('\uFEFF', '')).toBe(text);
});

test('what the server refuses is said, until it takes one', async () => {
  let status = 413;
  answering(() =>
    status === 200
      ? { body: { guess: GUESS, rows: ROWS, errors: [] } }
      : { status, body: { says: 'The file is too large.' } },
  );
  drawn(<CsvImport columns={null} tableKey={null} onTake={vi.fn()} onDone={vi.fn()} />);
  pick('x');
  expect((await screen.findByRole('alert')).textContent).toContain('The file is too large.');
  status = 200;
  pick('y');
  await screen.findByText('2 rows.');
  expect(screen.queryByRole('alert')).toBeNull();
});
