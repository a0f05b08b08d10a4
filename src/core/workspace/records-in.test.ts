/** Records in: as they went out, as offices spell them, and what cannot be read by its line. */
import { describe, expect, test } from 'vitest';
import {
  choice,
  choices,
  date,
  formWith,
  money,
  number,
  rows,
  text,
  yesNo,
} from '../../../tests/support/forms';
import type { Values } from '../form/value';
import { readRecords } from './records-in';
import { recordWriter, type RecordFormat } from './records-out';

const form = formWith([
  text('vessel'),
  number('length'),
  money('dues', { scriptOnly: true }),
  date('arrival'),
  yesNo('lit'),
  choice('pilot', ['own', 'none']),
  choices('uses', ['tug', 'fender']),
  rows('cargo', [text('goods')]),
]);

const RECORDS: { id: string; values: Values }[] = [
  {
    id: '1',
    values: {
      vessel: '=Halcyon, "Ore"',
      length: 80.5,
      dues: null,
      arrival: '2031-05-03',
      lit: true,
      pilot: 'own',
      uses: ['tug', 'fender'],
      cargo: [{ goods: 'salt' }],
    },
  },
  {
    id: '2',
    values: {
      vessel: null,
      length: null,
      dues: null,
      arrival: null,
      lit: false,
      pilot: null,
      uses: [],
      cargo: [],
    },
  },
];

test.each<RecordFormat>(['csv', 'json', 'jsonl'])('what went out as %s comes in again', (as) => {
  const writer = recordWriter(form, as);
  const { records, errors, leftOut } = readRecords(
    form,
    writer.head + writer.some(RECORDS, true) + writer.end,
    as,
  );
  expect(errors).toEqual([]);
  expect(leftOut).toEqual(['dues']);
  expect(records.map(({ id, values }) => ({ id, values: { ...values, dues: null } }))).toEqual(
    RECORDS.map(({ id, values }) => ({ id, values })),
  );
});

test('CSV as offices spell it', () => {
  const { records } = readRecords(
    form,
    'vessel;length;arrival;lit\nOre;1.080,5;03.05.2031;no\n',
    'csv',
  );
  expect(records).toEqual([
    {
      line: 2,
      id: null,
      values: { vessel: 'Ore', length: 1080.5, arrival: '2031-05-03', lit: false },
    },
  ]);
});

test('JSON may be the values alone', () => {
  expect(
    readRecords(
      form,
      '[\n  { "vessel": "Ore" },\n  { "id": 7, "values": { "vessel": "Tern" } }\n]',
      'json',
    ).records,
  ).toEqual([
    { line: 2, id: null, values: { vessel: 'Ore' } },
    { line: 3, id: '7', values: { vessel: 'Tern' } },
  ]);
});

describe('what cannot be read is named by its line, and the rest is read', () => {
  test.each<[RecordFormat, string, [number, string][], number]>([
    ['csv', 'vessel,length\nA,many\nB,3\n', [[2, 'Length: "many" is not a number']], 1],
    ['csv', 'vessel,draft\nA,3\n', [[1, 'the form has no field "draft"']], 0],
    ['csv', 'vessel,vessel\nA,B\n', [[1, '"vessel" is there twice']], 0],
    ['csv', '', [[1, 'the first line has to name the fields']], 0],
    ['csv', 'vessel\n"A\n', [[2, 'a quotation mark is opened and never closed']], 0],
    ['csv', 'cargo\nsalt\n', [[2, 'Cargo: "salt" is not JSON']], 0],
    [
      'jsonl',
      '{"vessel":"A"}\nnope\n{"draft":1}\n5\n',
      [
        [2, 'is not JSON'],
        [3, 'the form has no field "draft"'],
        [4, 'is no record'],
      ],
      1,
    ],
    ['json', '{"vessel":"A"}', [[1, 'is no list of records']], 0],
    ['json', '[\n{"vessel":\n', [[3, 'is not JSON']], 0],
    [
      'json',
      '[{"constructor":1},{"__proto__":{"a":1}}]',
      [
        [1, 'the form has no field "constructor"'],
        [1, 'uses the key "__proto__"'],
      ],
      0,
    ],
  ])('%s %j', (as, given, errors, read) => {
    const found = readRecords(form, given, as);
    expect(found.records).toHaveLength(read);
    expect(found.errors).toHaveLength(errors.length);
    for (const [i, [line, says]] of errors.entries()) {
      expect(found.errors[i]!.line).toBe(line);
      expect(found.errors[i]!.says).toContain(says);
    }
  });

  test('more than are brought in at once', () => {
    const { records, errors } = readRecords(form, `vessel\n${'A\n'.repeat(20_001)}`, 'csv');
    expect([records.length, errors]).toEqual([
      20_000,
      [{ line: 20_002, says: expect.stringContaining('at most 20000') as string }],
    ]);
  });
});
