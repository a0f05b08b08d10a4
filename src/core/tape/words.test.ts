import { readHeader } from '../script/header';
import { beforeAll, describe, expect, test } from 'vitest';
import { button, choice, formWith, number, rows, text, track } from '../../../tests/support/forms';
import { bootMachine, inMachine } from '../../../tests/support/hosts';
import {
  becameInWords,
  entryInWords,
  namesFor,
  placeInWords,
  stepAtMarker,
  stepInWords,
  valueInWords,
} from './words';

beforeAll(bootMachine);

const form = formWith(
  [choice('pilot', ['own', 'none']), number('dues'), text('note'), rows('cargo', [text('goods')])],
  { buttons: [button('start_over')], tracks: [track('course', ['asked'])] },
);
const sources = [
  {
    name: '10-pilot.ts',
    text: '/** Pilot details: asked only with a pilot. */\nkeep("asked", () => {\n  fields.note.shown = fields.pilot.value === "own";\n});\non.change(fields.dues, ({ value }) => {\n  if (value === 9) throw new Error("nine");\n});',
  },
];
const names = namesFor(
  form,
  sources.map((source) => ({ name: source.name, title: readHeader(source).title })),
  [{ key: 'mira', name: 'Mira Oldane' }],
);

describe('steps', () => {
  test.each([
    [{ set: 'pilot', to: 'own' }, ['Pilot', 'own'], 'Mira set Pilot to own'],
    [{ set: 'note', to: null }, ['Note', 'nothing'], 'Mira set Note to nothing'],
    [{ input: 'note', to: 'a' }, ['Note', 'typing a'], 'Mira typed a into Note'],
    [{ focus: 'note' }, ['Note', 'entered'], 'Mira went to Note'],
    [{ blur: 'note' }, ['Note', 'left'], 'Mira left Note'],
    [{ click: 'start_over' }, ['Start over', 'pressed'], 'Mira pressed Start over'],
    [{ wait: 400 }, ['wait', '400 ms'], '400 ms passed'],
    [{ wait: 0 }, ['wait', 'for what is due'], 'what was due happened'],
    [{ turnTo: 'main' }, ['Main', 'turned to'], 'Mira turned to Main'],
    [{ addRow: 'cargo' }, ['Cargo', 'row added'], 'Mira added a row to Cargo'],
    [{ removeRow: 'cargo[1]' }, ['row 2 of Cargo', 'removed'], 'Mira removed row 2 of Cargo'],
    [
      { moveRow: 'cargo[0]', to: 1 },
      ['row 1 of Cargo', 'to place 2'],
      'Mira moved row 1 of Cargo to place 2',
    ],
    [
      { set: 'cargo[0].goods', to: 'tin' },
      ['Goods in row 1 of Cargo', 'tin'],
      'Mira set Goods in row 1 of Cargo to tin',
    ],
    [{ next: true as const }, ['next record', ''], 'Mira went to the next record'],
    [{ previous: true as const }, ['previous record', ''], 'Mira went to the previous record'],
    [
      { answer: 'register.find', with: null },
      ['register.find', 'answered'],
      'register.find was answered by hand: nothing',
    ],
    [
      { answer: 'register.find', fails: 'down' },
      ['register.find', 'failed'],
      'register.find was answered by hand: failed, down',
    ],
    [
      { fromChild: 'note', to: 'x' },
      ['Note', 'x, from a child'],
      'a form opened from here set Note to x',
    ],
    [{ submit: true as const }, ['submit', ''], 'Mira submitted the form'],
  ])('%j', (step, marker, sentence) => {
    expect(stepAtMarker(step, names)).toEqual(marker);
    expect(stepInWords(step, names, 'Mira')).toBe(sentence);
  });
});

test.each([
  ['shown', false, 'hidden'],
  ['locked', true, 'locked'],
  ['required', false, 'not required'],
  ['options', null, 'all options'],
  ['options', [], 'options none'],
  ['value', 3, '3'],
  ['hint', null, 'no hint'],
  ['hint', 'x', 'hint “x”'],
  ['replaced', { text: 'Nothing to ask.', final: true }, 'replaced by “Nothing to ask.”'],
  ['replaced', null, 'its fields show again'],
] as const)('%s became %j: %s', (aspect, to, words) => {
  expect(becameInWords(aspect, to)).toBe(words);
});

test('values of lists and objects stay short', () => {
  expect([
    valueInWords(['a', 'b']),
    valueInWords(['a', 'b', 'c', 'd', 'e', 'f']),
    valueInWords({ a: 1 }),
    valueInWords([{ a: 1 }]),
    valueInWords([{ a: 1 }, { a: 2 }]),
  ]).toEqual(['a, b', '6 options', '{"a":1}', '1 row', '2 rows']);
});

test('a tape reads as sentences', () => {
  const use = inMachine({ form, scripts: { '10-pilot': sources[0]!.text } });
  const { tape } = use.do({ set: 'pilot', to: 'own' });
  expect(tape.map((entry) => entryInWords(entry, names, 'Mira Oldane'))).toEqual([
    'Mira Oldane set Pilot to own',
    'Pilot: nothing → own',
    'rule “asked”',
    'Note: shown',
  ]);
});

test('the rule whose word shows again, the form replaced and the places of a circle are said in words', () => {
  const again = {
    '10-low': 'keep("low", () => {\n  fields.note.hint = "always";\n});',
    '20-high':
      'keep("high", () => {\n  if (fields.dues.value === 1) fields.note.hint = "for one";\n  if (fields.dues.value === 2) form.replaceWith("Two is enough.");\n});',
  };
  const use = inMachine({ form, scripts: again });
  use.do({ set: 'dues', to: 1 });
  const { tape } = use.do({ set: 'dues', to: 2 });
  const said = tape.map((entry) => entryInWords(entry, names, 'Mira'));
  expect(said).toContain('Note: hint “always”, “low” shows again');
  expect(said).toContain('The form: replaced by “Two is enough.”');
  expect(
    ['note', 'note:shown', 'cargo.goods:hint'].map((place) => placeInWords(place, names)),
  ).toEqual(['Note', 'Note (shown)', 'Goods (hint)']);
});

test('a failure reads the same on the tape as in the bar: behaviour, line, words', () => {
  const use = inMachine({ form, scripts: { '10-pilot': sources[0]!.text } });
  const { tape } = use.do({ set: 'dues', to: 9 });
  expect(tape.slice(-2).map((entry) => entryInWords(entry, names, 'Mira Oldane'))).toEqual([
    'Pilot details failed on change of Dues',
    'Pilot details, line 6, threw: nine',
  ]);
});

test('waiting and rows read as sentences, a cell by its row', () => {
  const waits = {
    '10-pilot':
      'on.rowAdded(fields.cargo, async ({ row }) => {\n  await after(5);\n  row.fields.goods.hint = "late";\n});\non.change(fields.note, () => tracks.course.stage = "asked");',
  };
  const use = inMachine({ form, scripts: waits });
  use.do({ addRow: 'cargo' });
  use.do({ wait: 5 });
  use.do({ set: 'note', to: 'x' });
  const sentences = use.tape.map((entry) => entryInWords(entry, names, 'Mira'));
  expect(sentences.slice(1)).toEqual([
    'Mira added a row to Cargo',
    'Cargo: row 1 added',
    'rowAdded of Cargo',
    'Pilot details ran on rowAdded of Cargo',
    'called after 5 ms',
    '5 ms passed',
    'after answered',
    'Pilot details ran on rowAdded of Cargo',
    'Goods in a row of Cargo: hint “late”',
    'Mira set Note to x',
    'Note: nothing → x',
    'change of Note',
    'Pilot details ran on change of Note',
    'Course: stage “asked”',
  ]);
});
