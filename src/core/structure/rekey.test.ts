import { describe, expect, test } from 'vitest';
import { choice, choices, formWith, rows, track } from '../../../tests/support/forms';
import { libs } from '../language/generated/libs';
import type { Scenario } from '../scenario/definition';
import { InvalidEdit } from './edit';
import { rekeyed } from './in-scenario';
import { planRekey } from './rekey';
import type { Reach } from './uses';

const form = formWith(
  [
    choice('kind', ['tug', 'yacht'], { default: 'tug' }),
    choice('other', ['tug', 'none']),
    choices('uses', ['tug', 'fender'], { default: ['tug'] }),
    rows('boats', [choice('sort', ['tug', 'barge'])]),
  ],
  { name: 'visit', tracks: [{ ...track('course', ['asked', 'done']), stage: 'asked' }] },
);

const scenario = {
  title: 'A tug',
  open: { as: 'mira' },
  steps: [
    { set: 'kind', to: 'tug' },
    { set: 'other', to: 'tug' },
    { set: 'uses', to: ['tug', 'fender'] },
    { addRow: 'boats', with: { sort: 'tug' } },
    { set: 'boats[0].sort', to: 'tug' },
    {
      expect: {
        kind: { value: 'tug', options: ['tug', 'yacht'], hint: 'tug' },
        'boats[0]': { cells: { sort: 'tug' } },
        course: { stage: 'asked' },
        '@submit': { saved: true, values: { kind: 'tug', boats: [{ sort: 'tug' }] } },
      },
    },
  ],
} as unknown as Scenario;

const code = `/** Tugs: and what they need. */
const FEES = { tug: 10, yacht: 20 };
const PLAIN = "tug";
keep(() => {
  const { kind } = fields;
  fields.other.shown = kind.value === 'tug';
  if (fields.other.value === "tug") log("tug");
  if (kind.value !== null) log(FEES[kind.value]);
  switch (kind.value) { case "tug": log(PLAIN); }
});
keep.each(fields.boats, (row) => {
  row.fields.sort.hint = row.values.sort === "tug" ? "heavy" : null;
});
on.load(() => {
  fields.kind.value = \`tug\`;
  fields.uses.value = ["tug"];
  tracks.course.stage = "asked";
});
`;
const reach: Reach = {
  shared: [],
  forms: [
    { form, behaviours: [{ name: '10-a.ts', text: code }], scenarios: [{ name: 'a', scenario }] },
  ],
  tables: [],
  services: [],
  roles: [{ key: 'clerk', label: 'Clerk' }],
  libs,
};
const planned = (part: string, key: string, to: string) => {
  const plan = planRekey(reach, 'visit', part, key, to);
  return {
    plan,
    code: plan.behaviours[0]?.text ?? code,
    steps: plan.scenarios[0]?.scenario.steps ?? scenario.steps,
  };
};

describe('another key', () => {
  test('in scripts: texts and names that mean it, in the quotes they had, and no others', () => {
    const { plan, code: now } = planned('kind', 'tug', 'tow');
    expect(now).toBe(
      code
        .replace('{ tug: 10', '{ tow: 10')
        .replace("kind.value === 'tug'", "kind.value === 'tow'")
        .replace('case "tug"', 'case "tow"')
        .replace('`tug`', '`tow`'),
    );
    expect(plan.mentions.map(({ line }) => line)).toEqual([3, 7, 7, 12, 16]);
  });

  test('of another field with the same key, of several choices, of a cell and of a track', () => {
    expect(planned('other', 'tug', 'tow').code).toBe(
      code.replace('fields.other.value === "tug"', 'fields.other.value === "tow"'),
    );
    expect(planned('uses', 'tug', 'tow').code).toBe(code.replace('["tug"]', '["tow"]'));
    expect(planned('boats.sort', 'tug', 'tow').code).toBe(
      code.replace('row.values.sort === "tug"', 'row.values.sort === "tow"'),
    );
    expect(planned('course', 'asked', 'wanted').code).toBe(
      code.replace('stage = "asked"', 'stage = "wanted"'),
    );
  });

  test('that is no name is quoted, and cannot break out of its quotes', () => {
    const { code: now } = planned('kind', 'tug', 'to\'w "a`${b}');
    expect(now).toContain('{ "to\'w \\"a`${b}": 10');
    expect(now).toContain("kind.value === 'to\\'w \"a`${b}'");
    expect(now).toContain('`to\'w "a\\`\\${b}`');
  });

  test('in the definition: the option, the default and the first stage', () => {
    const defined = (part: string, key: string, to: string) =>
      JSON.stringify(planned(part, key, to).plan.forms[0]);
    expect(defined('kind', 'tug', 'tow')).toContain('"default":"tow"');
    expect(defined('uses', 'tug', 'tow')).toContain('"default":["tow"]');
    expect(defined('course', 'asked', 'wanted')).toContain('"stage":"wanted"');
    expect(defined('kind', 'tug', 'tow').match(/"tow"/g)).toHaveLength(2);
  });

  test('in scenarios: where the part is set and expected, and nowhere else', () => {
    expect(planned('kind', 'tug', 'tow').steps).toEqual([
      { set: 'kind', to: 'tow' },
      ...scenario.steps.slice(1, 5),
      {
        expect: {
          kind: { value: 'tow', options: ['tow', 'yacht'], hint: 'tug' },
          'boats[0]': { cells: { sort: 'tug' } },
          course: { stage: 'asked' },
          '@submit': { saved: true, values: { kind: 'tow', boats: [{ sort: 'tug' }] } },
        },
      },
    ]);
    const cells = planned('boats.sort', 'tug', 'tow').steps;
    expect(cells.slice(3, 5)).toEqual([
      { addRow: 'boats', with: { sort: 'tow' } },
      { set: 'boats[0].sort', to: 'tow' },
    ]);
    expect(cells[5]).toMatchObject({
      expect: {
        kind: { value: 'tug' },
        'boats[0]': { cells: { sort: 'tow' } },
        '@submit': { values: { kind: 'tug', boats: [{ sort: 'tow' }] } },
      },
    });
  });

  test('there and back is what it was', () => {
    const there = planRekey(reach, 'visit', 'kind', 'tug', 'tow');
    const back = planRekey(
      {
        ...reach,
        forms: [
          {
            form: there.forms[0]!,
            behaviours: [{ name: '10-a.ts', text: there.behaviours[0]!.text }],
            scenarios: there.scenarios,
          },
        ],
      },
      'visit',
      'kind',
      'tow',
      'tug',
    );
    expect(back.forms[0]).toEqual(form);
    expect(back.behaviours[0]!.text).toBe(code);
    expect(back.scenarios[0]!.scenario).toEqual(scenario);
  });

  test.each([
    ['kind', 'tug', 'yacht', 'is the key of another option'],
    ['kind', 'ship', 'tow', 'has no option with the key "ship"'],
    ['kind', 'tug', '', 'between 1 and 200 characters'],
    ['nothing', 'tug', 'tow', 'has no part "nothing"'],
  ])('is refused: %s %s → %s', (part, key, to, says) => {
    expect(() => planRekey(reach, 'visit', part, key, to)).toThrow(InvalidEdit);
    expect(() => planRekey(reach, 'visit', part, key, to)).toThrow(says);
  });
});

test('values', () => {
  expect([rekeyed('a', 'a', 'b'), rekeyed(['c', 'a'], 'a', 'b'), rekeyed(3, 'a', 'b')]).toEqual([
    'b',
    ['c', 'b'],
    3,
  ]);
});
