import { parse } from 'csv-parse/sync';
import { expect, test } from 'vitest';
import { choices, formWith, number, rows, text, yesNo } from '../../../tests/support/forms';
import { recordWriter, type RecordFormat, type RecordOut } from './records-out';

const form = formWith([
  text('note'),
  number('depth'),
  yesNo('shore'),
  choices('flags', ['red', 'blue']),
  rows('cargo', [text('goods')]),
]);
const RECORDS: RecordOut[] = [
  {
    id: '1',
    values: {
      note: 'a, "b"\nc',
      depth: 0.1,
      shore: true,
      flags: ['red', 'blue'],
      cargo: [{ goods: 'x' }],
      gone: 1,
    },
  },
  { id: '2', values: { note: '=1+1', shore: false, flags: [], cargo: [] } },
  { id: 'v-3', values: {} },
];
const written = (format: RecordFormat, sizes: number[]) => {
  const writer = recordWriter(form, format);
  let at = 0;
  return [
    writer.head,
    ...sizes.map((size) => writer.some(RECORDS.slice(at, (at += size)), at === size)),
    writer.end,
  ].join('');
};

test('CSV as a spreadsheet reads it, without formulas', () => {
  expect(parse(written('csv', [2, 1]))).toEqual([
    ['id', 'note', 'depth', 'shore', 'flags', 'cargo'],
    ['1', 'a, "b"\nc', '0.1', 'yes', 'red;blue', '[{"goods":"x"}]'],
    ['2', "'=1+1", '', 'no', '', ''],
    ['v-3', '', '', '', '', ''],
  ]);
});

test('JSON and JSON Lines say the same, however many pieces they come in', () => {
  const want = RECORDS.map(
    ({ id, values: { note = null, depth = null, shore = null, flags = null, cargo = null } }) => ({
      id,
      values: { note, depth, shore, flags, cargo },
    }),
  );
  for (const sizes of [[3], [1, 1, 1], [0, 2, 1]]) {
    expect(JSON.parse(written('json', sizes))).toEqual(want);
    expect(
      written('jsonl', sizes)
        .trimEnd()
        .split('\n')
        .map((line) => JSON.parse(line) as unknown),
    ).toEqual(want);
  }
  const writer = recordWriter(form, 'json');
  expect(JSON.parse(writer.head + writer.end)).toEqual([]);
});
