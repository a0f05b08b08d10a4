import { describe, expect, test } from 'vitest';
import { choice, formWith, number, reference, rows, text } from '../../../tests/support/forms';
import type { Claim } from '../tape/tape';
import { spelled } from '../script/spelled';
import { cellsSaid, linesInWords, replayedInWords, shortWord } from './margin-words';

const word = (behaviour: string, line: Claim['line']) => ({ behaviour, line }) as Claim;

test('lines are told by behaviour, each once, those of the behaviour itself before those of modules', () => {
  const said = [
    word('10-a', 8),
    word('10-a', 'shared/dates:5'),
    word('20-b', 3),
    word('10-a', 7),
    word('10-a', 8),
  ];
  expect(linesInWords(said, (name) => name.toUpperCase())).toBe(
    '10-A, 7, 8, shared/dates:5; 20-B, 3',
  );
});

test('of rows what was said in them is told, where nothing was said of the field itself', () => {
  const words = new Map([
    ['cargo#1.weight', [word('a', 1)]],
    ['cargo#2', [word('b', 2)]],
    ['cargos#1', [word('c', 3)]],
  ]);
  expect(cellsSaid(words, 'cargo')).toEqual([word('a', 1), word('b', 2)]);
  expect(cellsSaid(words, 'vessel')).toBeUndefined();
});

describe('in the margin', () => {
  const form = formWith([
    number('dues', { decimals: 2 }),
    choice('kind', ['tug', 'bulk', 'crude']),
    reference('berth', 'berths'),
    text('note'),
  ]);
  const tables = [
    {
      name: 'berths',
      title: 'Berths',
      key: 'code',
      label: 'code',
      columns: [],
      rows: [{ code: 'nq1' }, { code: 'nq2' }],
    },
  ];
  const told = (aspect: Parameters<typeof shortWord>[0], to: unknown, part: string) =>
    shortWord(aspect, to, part, { form, tables }, 'iso');
  test.each([
    ['value', 4.5, 'dues', '4.50'],
    ['shown', false, 'note', 'hidden'],
    ['required', true, 'note', 'required'],
    ['hint', 'Long.', 'note', 'hint'],
    ['hint', null, 'note', 'no hint'],
    ['problem', 'Too long.', 'note', 'problem'],
    ['options', [{ key: 'tug' }], 'kind', '1 of 3 offered'],
    ['options', [{ key: 'nq1' }], 'berth', '1 of 2 offered'],
    ['options', [{ key: 'x' }, { key: 'y' }], 'note', '2 options'],
    ['options', null, 'kind', ''],
  ] as const)('%s %j of %s: %s', (aspect, to, part, says) => {
    expect(told(aspect, to, part)).toBe(says);
  });
});

test.each([
  [null, ''],
  [[], 'replayed: nothing changed'],
  [['a'], 'replayed: a changed'],
  [['a', 'a', 'b'], 'replayed: a, b changed'],
  [['a', 'b', 'c', 'd', 'e'], 'replayed: a, b, c and 2 more changed'],
])('a replay that changed %j', (parts, says) => {
  expect(replayedInWords(parts?.map((part) => ({ part }) as never) ?? null)).toBe(says);
});

test('parts are spelled as scripts do', () => {
  const form = {
    ...formWith([text('note'), rows('cargo', [number('weight')])]),
    tracks: [{ name: 'way', title: 'Way', stages: [] }],
  };
  const [page] = form.pages;
  const [section] = page!.sections;
  expect(
    ['note', 'cargo#3.weight', 'cargo#3', section!.name, page!.name, 'way', 'go'].map((part) =>
      spelled(form, part),
    ),
  ).toEqual([
    'fields.note',
    'row.fields.weight',
    'fields.cargo',
    `sections.${section!.name}`,
    `pages.${page!.name}`,
    'tracks.way',
    'buttons.go',
  ]);
});
