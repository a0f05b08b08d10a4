import { describe, expect, test } from 'vitest';
import {
  choice,
  formWith,
  number,
  reference,
  rows,
  text,
  yesNo,
} from '../../../tests/support/forms';
import { detailedMaterial, groundOf, type Setting } from '../../../tests/support/hosts';
import type { TimedStep } from '../session/step';
import { writersOf } from '../language/writers';
import { namesFor } from '../tape/words';
import { decideInTurn } from './chain';
import { decide } from './decide';
import type { Decision } from './decision';
import { textOfSentence } from './pieces';
import { usualAspect } from './question';
import { leftOutInWords, whyNotInWords } from './why-not-words';
import { decisionInWords } from './why-words';
import { leftOut, type LeftOut } from './left-out';
import { otherLines, whyNot, type WhyNot } from './why-not';

const form = formWith([
  choice('kind', ['tug', 'ferry', 'barge']),
  number('length'),
  yesNo('paid'),
  text('note'),
  text('agent', { hint: 'Whoever sends the ship.' }),
  reference('berth', 'berths'),
  choice('size', ['small', 'large']),
]);

const tables = [
  {
    name: 'berths',
    title: 'Berths',
    key: 'code',
    label: 'called',
    columns: [],
    rows: [
      { code: 'n1', called: 'North 1', depth: 4 },
      { code: 'n2', called: 'North 2', depth: 9 },
      { code: 's1', called: 'South 1', depth: 7 },
    ],
  },
] as unknown as NonNullable<Setting['tables']>;

function settingOf(script: string, more: Partial<Setting> = {}): Setting {
  return { form, tables, scripts: { '10-x': script }, ...more };
}

interface Asked {
  script: string;
  steps: TimedStep[];
  part: string;
  aspect: string;
  more?: Partial<Setting>;
}

async function why({ script, steps, part, aspect, more }: Asked): Promise<Decision> {
  return decide(groundOf(settingOf(script, more), steps), { part, aspect, before: null });
}

async function inWords(asked: Asked): Promise<string[]> {
  const { script, steps, part, aspect, more } = asked;
  const ground = groundOf(settingOf(script, more), steps);
  const decision = await decide(ground, { part, aspect, before: null });
  const context = { names: namesFor(form, [], []), who: 'Mira', tape: ground.tape };
  return decisionInWords(decision, context).map(textOfSentence);
}

async function whyNotSo({ script, steps, part, aspect, more }: Asked): Promise<{
  found: WhyNot[];
  words: string[];
}> {
  const setting = settingOf(script, more);
  const ground = groundOf(setting, steps);
  const question = { part, aspect, before: null };
  const writers = writersOf([{ name: '10-x.ts', text: script }]);
  const decision = await decide(ground, question);
  const found = otherLines(await whyNot(ground, writers, question), decision);
  const context = { names: namesFor(form, [], []), who: 'Mira', tape: ground.tape };
  return {
    found,
    words: found.flatMap((one) => whyNotInWords(one, context).map(textOfSentence)),
  };
}

describe('why an invariant does not hold', () => {
  const script = [
    'always("no note of ferries", () => fields.kind.value !== "ferry" || fields.note.empty);',
    'keep("paid", () => { fields.berth.shown = fields.paid.value === true; });',
  ].join('\n');
  const steps: TimedStep[] = [
    { set: 'kind', to: 'ferry' },
    { set: 'note', to: 'Late.' },
    { set: 'note', to: 'Later.' },
    { set: 'paid', to: true },
  ];
  const asked = { script, steps, part: '@form', aspect: 'always:no note of ferries' };

  test('since which step, and what it read', async () => {
    expect(await why(asked)).toMatchObject({
      decided: 'judged',
      value: false,
      step: 2,
      line: 1,
      run: { behaviour: '10-x', sort: 'invariant' },
      causes: [
        { is: 'read', part: 'kind', aspect: 'value', value: 'ferry' },
        { is: 'read', part: 'note', aspect: 'value', value: 'Later.' },
      ],
    });
    expect((await inWords(asked))[0]).toBe(
      '“no note of ferries” does not hold, since Mira set Note to Late. (step 2): 10-x says so on line 1.',
    );
  });

  test('of a row, what was said of that row; and what failed has said nothing', async () => {
    const list = formWith([rows('goods', [number('weight')]), text('note')]);
    const of = {
      script:
        'always.each(fields.goods, "weighs", (row) => { if (fields.note.value === "boom") throw new Error("x"); return row.fields.weight.value !== 0; });',
      steps: [
        { addRow: 'goods', with: { weight: 3 } },
        { addRow: 'goods', with: { weight: 0 } },
      ] as TimedStep[],
      aspect: 'always:weighs',
      more: { form: list },
    };
    expect(await why({ ...of, part: 'goods#1' })).toMatchObject({ value: true, step: 1 });
    expect(await why({ ...of, part: 'goods#2' })).toMatchObject({ value: false, step: 2 });
    const failed = [...of.steps, { set: 'note', to: 'boom' }];
    expect(await why({ ...of, steps: failed, part: 'goods#2' })).toMatchObject({
      value: false,
      step: 2,
    });
  });

  test('it holds since the opening, or was never asked', async () => {
    expect((await inWords({ ...asked, steps: [] }))[0]).toMatch(
      /^“no note of ferries” holds, since .*: 10-x says so on line 1\.$/,
    );
    expect(await inWords({ ...asked, aspect: 'always:nothing' })).toEqual([
      '“nothing” was never asked.',
    ]);
  });
});

describe('why', () => {
  test('names the line, the condition with both sides and what it depends on', async () => {
    const script = [
      'keep("long", () => {',
      '  const length = fields.length.value ?? 0;',
      '  if (length > 100) {',
      '    fields.note.required = true;',
      '  }',
      '});',
    ].join('\n');
    const decision = await why({
      script,
      steps: [{ set: 'length', to: 120 }],
      part: 'note',
      aspect: 'required',
    });
    expect(decision).toMatchObject({
      decided: 'said',
      value: true,
      line: 4,
      statement: 'fields.note.required = true;',
      run: { behaviour: '10-x', title: 'long', sort: 'rule' },
    });
    expect(decision.conditions.find(({ line }) => line === 3)).toMatchObject({
      text: 'length > 100',
      came: true,
      comparisons: [{ op: '>', left: { value: 120 }, right: { value: 100 }, came: true }],
    });
    expect(decision.causes).toEqual([
      expect.objectContaining({ is: 'read', part: 'length', aspect: 'value', value: 120 }),
    ]);
  });

  test('goes through what was caught', async () => {
    const decision = await why({
      script: [
        'on.change(fields.length, ({ value }) => {',
        '  try {',
        '    if (value !== null) throw new Error(`Ask ${fields.agent.value}`);',
        '  } catch (caught) {',
        '    fields.note.hint = (caught as Error).message;',
        '  }',
        '});',
      ].join('\n'),
      steps: [
        { set: 'agent', to: 'Oldane' },
        { set: 'length', to: 120 },
      ],
      part: 'note',
      aspect: 'hint',
    });
    expect(decision).toMatchObject({ line: 5, value: 'Ask Oldane' });
    expect(decision.conditions).toMatchObject([{ line: 3, text: 'value !== null', came: true }]);
    expect(decision.causes).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ is: 'event', part: 'length', value: 120 }),
        expect.objectContaining({ is: 'read', part: 'agent', value: 'Oldane' }),
      ]),
    );
  });

  test('of a handler names its event', async () => {
    const decision = await why({
      script: 'on.change(fields.kind, () => {\n  fields.note.hint = "Ask the pilot.";\n});',
      steps: [{ set: 'kind', to: 'tug' }],
      part: 'note',
      aspect: 'hint',
    });
    expect(decision.causes).toEqual([
      expect.objectContaining({ is: 'event', event: 'change', part: 'kind', value: 'tug' }),
    ]);
  });

  test('says that people entered it, that it came with the record, and that nobody said anything', async () => {
    const record = { id: '7', values: { length: 80 } };
    const steps: TimedStep[] = [{ set: 'paid', to: true }];
    const asked = { script: '', steps, more: { record } };
    expect(await inWords({ ...asked, part: 'paid', aspect: 'value' })).toEqual([
      'Paid is true because Mira set Paid to true (step 1).',
    ]);
    expect(await inWords({ ...asked, part: 'length', aspect: 'value' })).toEqual([
      'Length is 80: it came with the record.',
    ]);
    expect(await inWords({ ...asked, part: 'note', aspect: 'value' })).toEqual([
      'Note is empty: it came with the record.',
    ]);
    expect(await inWords({ script: '', steps, part: 'note', aspect: 'value' })).toEqual([
      'Note is empty: nobody entered anything, and no script set it.',
    ]);
    expect(await inWords({ ...asked, part: 'agent', aspect: 'hint' })).toEqual([
      'Agent has the hint “Whoever sends the ship.”: no script says anything of it, so the form’s definition holds.',
    ]);
  });

  test('says that a rule fell silent', async () => {
    const script =
      'keep("hint", () => {\n  if (fields.paid.value === true) fields.note.hint = "Thank you.";\n});';
    const steps: TimedStep[] = [
      { set: 'paid', to: true },
      { set: 'paid', to: false },
    ];
    const decision = await why({ script, steps, part: 'note', aspect: 'hint' });
    expect(decision).toMatchObject({ decided: 'withdrawn', value: null, line: 2 });
    // What keeps it silent is told, and can be asked about in turn.
    expect(decision.conditions).toMatchObject([
      { text: 'fields.paid.value === true', came: false },
    ]);
    expect(decision.causes).toMatchObject([{ is: 'read', part: 'paid', value: false }]);
  });

  test('says that the form itself cleared what is no longer offered, and what made it so', async () => {
    const script = 'on.change(fields.paid, () => {\n  fields.size.options = ["large"];\n});';
    const steps: TimedStep[] = [
      { set: 'size', to: 'small' },
      { set: 'paid', to: true },
    ];
    const decision = await why({ script, steps, part: 'size', aspect: 'value' });
    expect(decision.decided).toBe('corrected');
    expect(decision.causes).toEqual([
      expect.objectContaining({ is: 'read', part: 'size', aspect: 'options' }),
    ]);
  });

  test('leads from a wait to its answer', async () => {
    const script = [
      'on.change(fields.kind, async () => {',
      '  await after(20);',
      '  fields.note.hint = "Later.";',
      '});',
    ].join('\n');
    const steps: TimedStep[] = [{ set: 'kind', to: 'tug' }, { wait: 30 }];
    const decision = await why({ script, steps, part: 'note', aspect: 'hint' });
    expect(decision.line).toBe(3);
    expect(decision.causes.map(({ is }) => is)).toEqual(['event', 'answer']);
  });

  test('names how the form was opened, the clock, chance and variables that outlive runs', async () => {
    const script = [
      'let seen = 0;',
      'on.change(fields.length, () => {',
      '  seen++;',
      '});',
      'on.change(fields.kind, () => {',
      '  if (form.isNew && Math.random() < 2 && Temporal.Now.plainDateISO().year > 1 && seen > 0) {',
      '    fields.note.hint = "Often.";',
      '  }',
      '});',
    ].join('\n');
    const steps: TimedStep[] = [
      { set: 'length', to: 1 },
      { set: 'kind', to: 'tug' },
    ];
    const decision = await why({ script, steps, part: 'note', aspect: 'hint' });
    expect(decision.causes).toEqual(
      expect.arrayContaining([
        { is: 'opening', what: 'isNew', value: true },
        { is: 'clock' },
        { is: 'random' },
        { is: 'variable', script: '10-x', name: 'seen' },
      ]),
    );
  });

  test('asks everything in turn, down to steps, the opening and the definition, and ends in circles', async () => {
    const script = [
      'keep("twice", () => {',
      '  fields.note.value = `${(fields.length.value ?? 0) * 2}`;',
      '});',
      'on.change(fields.note, () => {',
      '  fields.agent.hint = fields.note.value;',
      '});',
    ].join('\n');
    const ground = groundOf(settingOf(script), [{ set: 'length', to: 4 }]);
    const chain = await decideInTurn(ground, { part: 'agent', aspect: 'hint', before: null });
    expect(chain.value).toBe('8');
    const parts: string[] = [];
    const follow = (one: typeof chain): void => {
      parts.push(`${one.part}.${one.aspect} ${one.decided}`);
      for (const next of one.because) if (next !== null) follow(next);
    };
    follow(chain);
    expect(parts).toEqual(
      expect.arrayContaining(['agent.hint said', 'note.value said', 'length.value entered']),
    );
  });

  test('begins with what a script decided last, else with whether it is shown', () => {
    const ground = groundOf(
      settingOf('on.load(() => {\n  fields.note.hint = "x";\n  fields.note.required = true;\n});'),
      [],
    );
    expect(usualAspect(ground.tape, 'note', undefined)).toBe('required');
    expect(usualAspect(ground.tape, 'paid', undefined)).toBe('shown');
  });

  test('tells a condition that a callback looked at often once', async () => {
    const script = [
      'keep("fits", () => {',
      '  fields.berth.options = tables.berths.rows.filter((row) =>',
      '    row.depth > (fields.length.value ?? 0) && row.code !== "s1");',
      '});',
    ].join('\n');
    const words = await inWords({
      script,
      steps: [{ set: 'length', to: 5 }],
      part: 'berth',
      aspect: 'options',
    });
    expect(words[1]).toBe(
      'Line 3: row.depth > (fields.length.value ?? 0) held twice and did not hold once, first where 4 ≤ 5.',
    );
  });
});

test('what decided names the sides of its own comparisons, and near misses among them', async () => {
  const asked = {
    script:
      'keep("tugs", () => { fields.note.shown = fields.kind.value === "Tug" || fields.paid.value === true; });',
    steps: [{ set: 'kind', to: 'tug' }] as TimedStep[],
    part: 'note',
    aspect: 'shown',
  };
  const decision = await why(asked);
  expect(decision.comparisons.map(({ left, right }) => [left.value, right.value])).toEqual([
    ['tug', 'Tug'],
    [null, true],
  ]);
  expect(decision.near).toEqual([{ is: 'case' }, { is: 'label', label: 'Tug', key: 'tug' }]);
  // What stands in the statement is not told twice.
  expect(decision.conditions).toEqual([]);
  expect((await inWords(asked)).slice(0, 3)).toEqual([
    'Note is hidden: rule “tugs” of 10-x says so on line 1: fields.note.shown = fields.kind.value === "Tug" || fields.paid.value === true ("tug" ≠ "Tug", nothing ≠ true).',
    'The two differ in capital letters alone.',
    '“Tug” is the label of an option; scripts compare its key, "tug".',
  ]);
});

test('a cell holds what its row brought: from a person, a script or the record', async () => {
  const withRows = formWith([number('length'), rows('cargo', [text('goods'), number('weight')])]);
  const script =
    'on.change(fields.length, () => {\n  fields.cargo.add({ goods: "Salt", weight: 9 });\n});';
  const setting: Setting = {
    form: withRows,
    scripts: { '10-x': script },
    record: { id: '7', values: { cargo: [{ goods: 'Coal', weight: 3 }] } },
  };
  const steps: TimedStep[] = [
    {
      addRow: 'cargo',
      with: [
        { goods: 'Sand', weight: 4 },
        { goods: 'Gravel', weight: 5 },
      ],
    },
    { set: 'length', to: 1 },
    { set: 'cargo[1].weight', to: 6 },
  ];
  const ground = groundOf(setting, steps);
  const of = (part: string) => decide(ground, { part, aspect: 'value', before: null });
  expect(await of('cargo#1.weight')).toMatchObject({ decided: 'record', value: 3 });
  expect(await of('cargo#2.weight')).toMatchObject({ decided: 'entered', value: 6 });
  expect(await of('cargo#3.weight')).toMatchObject({ decided: 'row', value: 5, run: null });
  const byScript = await of('cargo#4.weight');
  expect(byScript).toMatchObject({ decided: 'row', run: { behaviour: '10-x' }, line: 2 });
  const context = { names: namesFor(withRows, [], []), who: 'Mira', tape: ground.tape };
  expect(decisionInWords(await of('cargo#3.weight'), context).map(textOfSentence)[0]).toMatch(
    /is 5: it came with its row, when Mira added .+\.$/,
  );
});

describe('why, where the tape is not told in order', () => {
  test('nothing reaches into a former record after turning to the next one', async () => {
    const records = [
      { id: '1', values: { length: 1 } },
      { id: '2', values: { length: 2 } },
    ];
    const asked = {
      script: [
        'keep("r", () => { fields.note.hint = `is ${fields.length.value}`; });',
        'on.change(fields.length, () => { fields.note.required = true; });',
      ].join('\n'),
      steps: [{ set: 'length', to: 7 }, { next: true }] as TimedStep[],
      more: { record: records[0]!, opening: { records } },
      part: 'note',
    };
    expect(await why({ ...asked, aspect: 'required' })).toMatchObject({
      decided: 'definition',
      value: false,
    });
    expect(await why({ ...asked, part: 'length', aspect: 'value' })).toMatchObject({
      decided: 'record',
      value: 2,
    });
    expect(await why({ ...asked, aspect: 'hint' })).toMatchObject({ decided: 'said', line: 1 });
  });

  test('a rule that says what the definition says anyway is the one who decides', async () => {
    const decision = await why({
      script: 'keep("r", () => { fields.note.shown = fields.length.value !== 3; });',
      steps: [],
      part: 'note',
      aspect: 'shown',
    });
    expect(decision).toMatchObject({ decided: 'said', value: true, run: { title: 'r' } });
  });

  test('the earlier rule whose word shows again is named, once a later one is silent', async () => {
    const decision = await why({
      script: [
        'keep("one", () => { fields.note.hint = "one"; });',
        'keep("two", () => { if (fields.length.value === 1) fields.note.hint = "two"; });',
      ].join('\n'),
      steps: [
        { set: 'length', to: 1 },
        { set: 'length', to: 2 },
      ],
      part: 'note',
      aspect: 'hint',
    });
    expect(decision).toMatchObject({ value: 'one', run: { title: 'one' }, line: 1 });
  });

  test('nothing that was undone is told, and what a person entered is', async () => {
    const asked = {
      script: [
        'on.change(fields.length, () => { fields.note.hint = "undone"; });',
        'keep("a", () => { fields.note.value = `${fields.agent.value ?? ""}a`; });',
        'keep("b", () => { if (fields.length.value !== null) fields.agent.value = `${fields.note.value}b`; });',
      ].join('\n'),
      steps: [{ set: 'length', to: 1 }] as TimedStep[],
      part: 'note',
    };
    expect(await why({ ...asked, aspect: 'hint' })).toMatchObject({ decided: 'definition' });
    expect(await why({ ...asked, part: 'length', aspect: 'value' })).toMatchObject({
      decided: 'entered',
      value: 1,
    });
  });
});

describe('why not', () => {
  test('names the condition, both sides, and that a label stands where a key belongs', async () => {
    const { words } = await whyNotSo({
      script:
        'keep("tugs", () => {\n  if (fields.kind.value === "Tug") {\n    fields.note.required = true;\n  }\n});',
      steps: [{ set: 'kind', to: 'tug' }],
      part: 'note',
      aspect: 'required',
    });
    expect(words).toEqual([
      'Line 3 of 10-x was not reached: line 2 needs fields.kind.value === "Tug": "tug" ≠ "Tug".',
      'The two differ in capital letters alone.',
      '“Tug” is the label of an option; scripts compare its key, "tug".',
    ]);
  });

  test('finds the conditions behind each other by turning them round', async () => {
    const { found } = await whyNotSo({
      script: [
        'keep("both", () => {',
        '  if (fields.paid.value !== true) return;',
        '  if ((fields.length.value ?? 0) > 100) {',
        '    fields.note.required = true;',
        '  }',
        '});',
      ].join('\n'),
      steps: [{ set: 'length', to: 5 }],
      part: 'note',
      aspect: 'required',
    });
    expect(found[0]!.outcome).toMatchObject({
      is: 'kept',
      by: [
        { line: 2, needs: false },
        { line: 3, needs: true },
      ],
    });
  });

  test('says that the event never came', async () => {
    const { words } = await whyNotSo({
      script: 'on.change(fields.kind, () => {\n  fields.note.hint = "x";\n});',
      steps: [{ set: 'paid', to: true }],
      part: 'note',
      aspect: 'hint',
    });
    expect(words).toEqual([
      'Line 2 of 10-x runs on a change of Kind, which has not happened since the form was opened.',
    ]);
  });

  test('says which rule overruled it', async () => {
    const { found, words } = await whyNotSo({
      script: [
        'keep("first", () => {\n  fields.note.hint = "one";\n});',
        'keep("second", () => {\n  fields.note.hint = "two";\n});',
      ].join('\n'),
      steps: [],
      part: 'note',
      aspect: 'hint',
    });
    expect(found.map(({ outcome }) => outcome.is)).toEqual(['overruled']);
    expect(words[0]).toBe(
      'Line 2 of 10-x said "one", and “second” of 10-x says otherwise after it.',
    );
  });

  test('says that the run failed or still waits', async () => {
    const { found: failed } = await whyNotSo({
      script: 'on.change(fields.kind, () => {\n  JSON.parse("{");\n  fields.note.hint = "x";\n});',
      steps: [{ set: 'kind', to: 'tug' }],
      part: 'note',
      aspect: 'hint',
    });
    expect(failed[0]!.outcome).toMatchObject({ is: 'failed' });
    const { found: waits } = await whyNotSo({
      script:
        'on.change(fields.kind, async () => {\n  await after(50);\n  fields.note.hint = "x";\n});',
      steps: [{ set: 'kind', to: 'tug' }],
      part: 'note',
      aspect: 'hint',
    });
    expect(waits[0]!.outcome).toEqual({ is: 'waits', restarted: null });
  });

  test('of a switch names what it looked at', async () => {
    const { found } = await whyNotSo({
      script: [
        'keep("kinds", () => {',
        '  switch (fields.kind.value) {',
        '    case "barge":',
        '      fields.note.hint = "x";',
        '  }',
        '});',
      ].join('\n'),
      steps: [{ set: 'kind', to: 'tug' }],
      part: 'note',
      aspect: 'hint',
    });
    expect(found[0]!.outcome).toMatchObject({
      is: 'kept',
      by: [{ text: 'fields.kind.value', came: 'tug', needs: null }],
    });
  });
});

describe('an option that is not offered', () => {
  async function left(script: string): Promise<LeftOut[]> {
    const setting = settingOf(script);
    const ground = groundOf(setting, [{ set: 'length', to: 5 }]);
    const decision = await decide(ground, { part: 'berth', aspect: 'options', before: null });
    return leftOut(ground, decision, tables);
  }

  test('was left out by the comparison of a filter', async () => {
    const found = await left(
      'keep("fits", () => {\n  fields.berth.options = tables.berths.rows.filter((row) => row.depth > (fields.length.value ?? 0));\n});',
    );
    expect(found).toMatchObject([
      {
        key: 'n1',
        label: 'North 1',
        by: { line: 2, comparisons: [{ left: { value: 4 }, right: { value: 5 } }] },
      },
    ]);
    expect(textOfSentence(leftOutInWords(found[0]!))).toBe(
      'North 1 ("n1") is not offered: line 2 left it out, since 4 ≤ 5.',
    );
  });

  test('was left out in a round of a loop', async () => {
    const found = await left(
      [
        'keep("fits", () => {',
        '  const all = [];',
        '  for (const row of tables.berths.rows) {',
        '    if (row.depth < 8) continue;',
        '    all.push(row);',
        '  }',
        '  fields.berth.options = all;',
        '});',
      ].join('\n'),
    );
    expect(found.map(({ key }) => key)).toEqual(['n1', 's1']);
  });

  test('is said to be in no line where none looked at it', async () => {
    const [found] = await left('keep("fits", () => {\n  fields.berth.options = ["n2", "s1"];\n});');
    expect(found).toMatchObject({ key: 'n1', by: null });
  });
});

test('the sites of a script are told once for each place', () => {
  const { sites } = detailedMaterial(settingOf('on.load(() => {\n  log(1);\n  log(2);\n});'));
  const statements = sites.get('10-x')!.filter(({ kind }) => kind === 'statement');
  expect(statements.map(({ line }) => line).sort()).toEqual([1, 2, 3]);
});
