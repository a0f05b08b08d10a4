import { expect, test } from 'vitest';
import { CasesSchema, type Cases } from './definition';
import {
  casesOver,
  withCase,
  withCell,
  withColumn,
  withoutCase,
  withoutColumn,
  withTitle,
} from './editing-cases';

const TABLE: Cases = {
  inputs: ['kind', 'length'],
  expected: ['dues'],
  rows: [
    { title: 'Tug', inputs: ['tug', 20], expected: [4] },
    { inputs: ['bulk', 190], expected: [900] },
  ],
};

test('a table begins with one case that sets nothing', () => {
  expect(casesOver('kind')).toEqual({
    inputs: ['kind'],
    expected: [],
    rows: [{ inputs: [null], expected: [] }],
  });
});

test('a column comes last, empty in every case, and goes with its cells', () => {
  const wider = withColumn(TABLE, 'expected', 'note.hint');
  expect(wider.expected).toEqual(['dues', 'note.hint']);
  expect(wider.rows.map(({ expected }) => expected)).toEqual([
    [4, null],
    [900, null],
  ]);
  expect(withoutColumn(wider, 'expected', 1)).toEqual(TABLE);
  expect(withoutColumn(TABLE, 'inputs', 0)).toMatchObject({
    inputs: ['length'],
    rows: [{ inputs: [20] }, { inputs: [190] }],
  });
});

test('a cell and a title are changed in their case alone', () => {
  expect(withCell(TABLE, 1, 'inputs', 1, 200).rows).toEqual([
    TABLE.rows[0],
    { inputs: ['bulk', 200], expected: [900] },
  ]);
  expect(withTitle(TABLE, 1, 'Bulk').rows[1]).toEqual({
    title: 'Bulk',
    inputs: ['bulk', 190],
    expected: [900],
  });
  expect(withTitle(TABLE, 0, '').rows[0]).toEqual({ inputs: ['tug', 20], expected: [4] });
});

test('a case is added without values, and removed', () => {
  const longer = withCase(TABLE);
  expect(longer.rows[2]).toEqual({ inputs: [null, null], expected: [null] });
  expect(withoutCase(longer, 2)).toEqual(TABLE);
  expect(withoutCase(TABLE, 0).rows).toEqual([TABLE.rows[1]]);
});

test('whatever is done with it, it stays a table', () => {
  const tables = [
    casesOver('kind'),
    withColumn(TABLE, 'inputs', 'note'),
    withoutColumn(TABLE, 'expected', 0),
    withCell(TABLE, 0, 'expected', 0, null),
    withTitle(TABLE, 0, 'x'),
    withCase(TABLE),
    withoutCase(TABLE, 1),
  ];
  for (const table of tables) expect(CasesSchema.parse(table)).toEqual(table);
});
