/**
 * The contract (docs/semantics.md), sentence by sentence, in both hosts. A test is named by the sentence it proves and
 * begins with its number.
 */
import { beforeAll, describe, expect, test } from 'vitest';
import {
  berths,
  button,
  choice,
  date,
  formWith,
  money,
  number,
  page,
  reference,
  section,
  text,
  yesNo,
} from '../../../tests/support/forms';
import { both, bootMachine, inMachine, type Setting } from '../../../tests/support/hosts';
import type { EffectEntry, Entry } from './entries';

beforeAll(bootMachine);

const effects = (tape: Entry[]) =>
  tape.filter((entry): entry is Entry & EffectEntry => entry.type === 'effect');
const runs = (tape: Entry[], title: string) =>
  tape.filter((entry) => entry.type === 'run' && entry.title === title).length;

const open = (setting: Setting) => both(setting);

describe('values', () => {
  test('1 a value is plain JSON of its kind', () => {
    const form = formWith([
      text('note'),
      number('length'),
      money('dues'),
      date('arrival'),
      yesNo('power'),
      choice('pilot', ['own', 'none']),
      reference('berth', 'berths'),
    ]);
    const use = open({ form, tables: [berths] });
    const offered = {
      note: 'x',
      length: 1.5,
      dues: 2,
      arrival: '2031-05-03',
      power: false,
      pilot: 'own',
      berth: 'nq1',
    };
    for (const [field, to] of Object.entries(offered)) use.do({ set: field, to });
    expect(
      Object.fromEntries(Object.keys(offered).map((field) => [field, use.value(field)])),
    ).toEqual(offered);
  });

  test('2 empty is null, an empty text too, and an untouched yes or no is not no', () => {
    const use = open({
      form: formWith([text('note'), yesNo('power'), yesNo('waste', { default: true })]),
    });
    use.do({ set: 'note', to: 'x' });
    use.do({ set: 'note', to: '' });
    expect([use.value('note'), use.value('power'), use.value('waste')]).toEqual([null, null, true]);
  });

  test('2 blanks are not empty and text is kept as typed', () => {
    const use = open({ form: formWith([text('note')]) });
    use.do({ set: 'note', to: '  a\n' });
    expect(use.value('note')).toBe('  a\n');
  });

  test.each([
    [number('length'), '12', 'takes a finite number'],
    [date('arrival'), '2031-02-30', 'takes a date spelled YYYY-MM-DD'],
    [yesNo('power'), 'no', 'takes yes or no (true or false)'],
    [choice('pilot', ['own', 'none']), 'Own', 'takes one of the keys "own", "none"'],
    [
      reference('berth', 'berths'),
      'nq9',
      'takes one of the keys "nq1", "nq2", "om1" of table berths',
    ],
  ])('3 a field accepts only values of its kind: %o', (field, offered, says) => {
    const use = open({ form: formWith([field]), tables: [berths] });
    expect(use.do({ set: field.name, to: offered }).refused).toContain(says);
    expect(use.value(field.name)).toBeNull();
  });

  test('3 a script that offers another kind gets an error that names field, kind and value', () => {
    const form = formWith([choice('pilot', ['own', 'none']), number('length')]);
    const use = open({
      form,
      scripts: { a: 'on.load(() => {\n  (fields.pilot as any).value = "Own";\n});' },
    });
    expect(use.opened.errors).toEqual([
      {
        code: 'wrong_value',
        behaviour: 'a',
        line: 2,
        says: 'pilot (choice) takes one of the keys "own", "none", not "Own". That is a label; its key is "own".',
      },
    ]);
  });

  test('3 a wrong assignment takes the run back even where the script catches it', () => {
    const form = formWith([number('length'), text('note')]);
    const use = open({
      form,
      scripts: {
        a: 'on.load(() => { fields.note.value = "x"; try { (fields.length as any).value = "y"; } catch {} });',
      },
    });
    expect(use.opened.errors).toHaveLength(1);
    expect(use.value('note')).toBeNull();
  });

  test('3 NaN and Temporal objects are no values, undefined is null', () => {
    const form = formWith([number('length', { default: 3 }), date('arrival'), number('draught')]);
    const scripts = {
      a: 'on.load(() => { fields.draught.value = NaN; });',
      b: 'on.load(() => { (fields.arrival as any).value = Temporal.PlainDate.from("2031-05-03"); });',
      c: 'on.load(() => { fields.length.value = undefined; });',
    };
    const use = open({ form, scripts });
    expect(use.opened.errors.map((error) => error.says)).toEqual([
      'draught (number) takes a finite number, not NaN.',
      'arrival (date) takes a date spelled YYYY-MM-DD, not an object. Use .toString() on it.',
    ]);
    expect(use.value('length')).toBeNull();
  });

  test('3 what scripts get is frozen', () => {
    const use = open({
      form: formWith([text('note')]),
      tables: [berths],
      launch: { v: 'x' },
      scripts: {
        a: 'on.load(() => { (tables.berths.rows[0] as any).depth = 1; });',
        b: 'on.load(() => { (form.launch as any).v = 1; });',
      },
    });
    expect(use.opened.errors.map(({ behaviour, code }) => [behaviour, code])).toEqual([
      ['a', 'type'],
      ['b', 'type'],
    ]);
  });

  test('3 what a record brings of another kind is empty for scripts, shown as it is, and saved again unchanged until set', () => {
    const form = formWith([number('length', { required: true }), choice('pilot', ['own'])]);
    const record = { id: '1', values: { length: 'about 40', pilot: 7 } };
    const use = open({
      form,
      record,
      scripts: { a: 'on.load(() => log(fields.length.value, fields.pilot.value));' },
    });
    expect(use.opened.log[0]!.values).toEqual([null, null]);
    expect([use.part('length').stray, use.part('pilot').stray]).toEqual(['about 40', 7]);
    expect(use.do({ submit: true }).submit).toMatchObject({
      saved: true,
      values: { length: 'about 40', pilot: 7 },
    });
    use.do({ set: 'length', to: 40 });
    expect([use.part('length').stray, use.do({ submit: true }).submit!.values.length]).toEqual([
      null,
      40,
    ]);
  });

  test('4 money stores what round gives, a number is never rounded, minus zero is zero', () => {
    const form = formWith([money('dues'), number('length', { decimals: 1 }), number('draught')]);
    const use = open({
      form,
      scripts: {
        a: 'on.load(() => { fields.dues.value = 1.005; fields.length.value = 1.25; fields.draught.value = -0; log(Object.is(fields.draught.value, 0)); });',
      },
    });
    expect([use.value('dues'), use.value('length'), use.value('draught')]).toEqual([1.01, 1.25, 0]);
    expect(use.opened.log[0]!.values).toEqual([true]);
  });

  test('5 labels are for reading: optionLabel and label', () => {
    const form = formWith([
      choice('pilot', ['own', 'none'], { default: 'own' }),
      reference('berth', 'berths', { default: 'nq1' }),
    ]);
    const use = open({
      form,
      tables: [berths],
      scripts: {
        a: 'on.load(() => log(fields.pilot.label, fields.pilot.optionLabel, fields.berth.optionLabel, fields.berth.row!.depth));',
      },
    });
    expect(use.opened.log[0]!.values).toEqual(['Pilot', 'Own', 'North quay 1', 6]);
  });

  test('6 a value no longer among the options is emptied by the form when the step is still', () => {
    const form = formWith([yesNo('deep'), reference('berth', 'berths', { default: 'nq1' })]);
    const use = open({
      form,
      tables: [berths],
      scripts: {
        a: 'keep("deep", () => { if (fields.deep.value) fields.berth.options = tables.berths.rows.filter((b) => b.depth! > 8); });',
      },
    });
    use.do({ set: 'deep', to: true });
    expect(use.value('berth')).toBeNull();
    expect(effects(use.tape).at(-1)).toMatchObject({ part: 'berth', aspect: 'value', by: 'form' });
  });

  test('6 a value that came with the record and is not offered stays, is marked, and cannot be chosen again once left', () => {
    const form = formWith([reference('berth', 'berths')]);
    const scripts = { a: 'keep("deep", () => { fields.berth.options = ["nq2", "om1"]; });' };
    const use = open({
      form,
      tables: [berths],
      scripts,
      record: { id: '7', values: { berth: 'nq1' } },
    });
    expect([use.value('berth'), use.part('berth').orphan]).toEqual(['nq1', true]);
    expect(use.do({ submit: true }).submit).toMatchObject({
      saved: true,
      values: { berth: 'nq1' },
    });
    use.do({ set: 'berth', to: 'om1' });
    expect(use.part('berth').orphan).toBe(false);
    expect(use.do({ set: 'berth', to: 'nq1' }).refused).toBe(
      '"nq1" is not among the options of Berth',
    );
  });

  test('6 a script may write any key the definition knows, and it is judged when the step is still', () => {
    const form = formWith([choice('pilot', ['own', 'none']), text('note')]);
    const scripts = {
      a: 'on.load(() => { fields.pilot.options = ["none"]; });\non.change(fields.note, () => { fields.pilot.value = "own"; fields.pilot.options = ["own"]; });',
    };
    const use = open({ form, scripts });
    use.do({ set: 'note', to: 'x' });
    expect(use.value('pilot')).toBe('own');
  });
});

describe('state', () => {
  test('7 scripts act on top of the base, and taking back shows it again', () => {
    const form = formWith([yesNo('go'), text('note', { hidden: true, required: true })]);
    const use = open({
      form,
      scripts: {
        a: 'on.change(fields.go, ({ value }) => { fields.note.shown = value ? true : undefined; });',
      },
    });
    expect(use.part('note').shown).toBe(false);
    use.do({ set: 'go', to: true });
    expect(use.part('note').shown).toBe(true);
    use.do({ set: 'go', to: false });
    expect(use.part('note').shown).toBe(false);
    expect(form.pages[0]!.sections[0]!.fields[1]).toMatchObject({ hidden: true });
  });

  test.each([
    ['fields.note.shown = null', 'note.shown takes true or false, not nothing.'],
    [
      'fields.pilot.options = null',
      'pilot.options takes a list of options or rows, or undefined to take it back, not nothing.',
    ],
    ['fields.note.label = "x"', 'note.label can be read, not written.'],
    [
      'fields.note.visible = false',
      'note has no aspect "visible". It has name, label, shown, locked, onScreen, editable, value, previous, initial, empty, orphan, required, options, optionLabel, row, hint, warning, problem.',
    ],
    ['fields.not.value = 1', 'there is no field "not". Is it "note"?'],
    ['fields.note = 3', 'fields.note is the field itself. Write fields.note.value = …'],
  ])('7 a wrong aspect is an error in words: %s', (code, says) => {
    const use = open({
      form: formWith([text('note'), choice('pilot', ['own'])]),
      scripts: { a: `on.load(() => { const f: any = fields; ${code.replace('fields', 'f')}; });` },
    });
    expect(use.opened.errors.map((error) => error.says)).toEqual([says]);
  });

  test('7 an empty hint or problem is none', () => {
    const use = open({
      form: formWith([text('note')]),
      scripts: { a: 'on.load(() => { fields.note.hint = ""; fields.note.problem = ""; });' },
    });
    expect([use.part('note').hint, use.part('note').problem]).toEqual([null, null]);
  });

  test('8 showing and locking nest: section and page', () => {
    const form = {
      name: 'f',
      title: 'F',
      pages: [
        page('one', [section('stay', [text('note')], { hidden: true })]),
        page('two', [section('crew', [text('crew_note')])], { locked: true }),
      ],
    };
    const use = open({ form });
    expect([use.part('note').shown, use.part('note').onScreen]).toEqual([true, false]);
    expect([use.part('crew_note').locked, use.part('crew_note').editable]).toEqual([false, false]);
    expect(use.do({ set: 'note', to: 'x' }).refused).toBe('Note is hidden');
    expect(use.do({ set: 'crew_note', to: 'x' }).refused).toBe('Crew note is locked');
  });

  test('8 when the page one is on is hidden the form turns to the nearest shown one', () => {
    const form = {
      name: 'f',
      title: 'F',
      pages: [
        page('one', [section('a', [yesNo('skip')])]),
        page('two', [section('b', [text('note')])]),
      ],
    };
    const use = open({
      form,
      scripts: { a: 'keep("skip", () => { pages.one.shown = fields.skip.value !== true; });' },
    });
    use.do({ set: 'skip', to: true });
    expect(use.seen.page).toBe('two');
  });

  test('10 a locked field refuses people, not scripts', () => {
    const use = open({
      form: formWith([number('dues', { locked: true }), number('length')]),
      scripts: {
        a: 'keep("dues", () => { fields.dues.value = (fields.length.value ?? 0) * 2; });',
      },
    });
    use.do({ set: 'length', to: 4 });
    expect(use.do({ set: 'dues', to: 1 }).refused).toBe('Dues is locked');
    expect(use.value('dues')).toBe(8);
  });

  test('11 whenHidden: keep is submitted, omit is not, clear is emptied and back to its default when shown again', () => {
    const form = formWith([
      yesNo('off'),
      text('kept'),
      text('omitted', { whenHidden: 'omit' }),
      text('cleared', { whenHidden: 'clear', default: 'd' }),
    ]);
    const scripts = {
      a: 'keep("off", () => { const on = fields.off.value !== true; fields.kept.shown = on; fields.omitted.shown = on; fields.cleared.shown = on; });',
    };
    const use = open({ form, scripts });
    for (const field of ['kept', 'omitted', 'cleared']) use.do({ set: field, to: 'x' });
    use.do({ set: 'off', to: true });
    expect([use.value('kept'), use.value('omitted'), use.value('cleared')]).toEqual([
      'x',
      'x',
      null,
    ]);
    expect(use.do({ submit: true }).submit).toMatchObject({
      values: { kept: 'x', omitted: null, cleared: null },
      without: ['omitted'],
    });
    use.do({ set: 'off', to: false });
    expect([use.value('omitted'), use.value('cleared')]).toEqual(['x', 'd']);
  });

  test('11 nothing is cleared at load', () => {
    const form = formWith([text('cleared', { whenHidden: 'clear' })]);
    const use = open({
      form,
      record: { id: '1', values: { cleared: 'x' } },
      scripts: { a: 'on.load(() => { fields.cleared.shown = false; });' },
    });
    expect(use.value('cleared')).toBe('x');
  });

  test('11 a cleared field shown again gets its default first, then the rule that writes it runs again', () => {
    const form = formWith([yesNo('off'), text('cleared', { whenHidden: 'clear', default: 'd' })]);
    const scripts = {
      a: 'keep("off", () => { fields.cleared.shown = fields.off.value !== true; });',
      b: 'keep("says", () => { fields.cleared.value = "said"; });',
    };
    const use = open({ form, scripts });
    use.do({ set: 'off', to: true });
    expect(use.value('cleared')).toBeNull();
    use.do({ set: 'off', to: false });
    expect(use.value('cleared')).toBe('said');
  });

  test('11 hidden fields are never checked', () => {
    const use = open({
      form: formWith([
        text('note', { hidden: true, required: true }),
        number('length', { hidden: true, min: 5, default: 1 }),
      ]),
    });
    expect(use.do({ submit: true }).submit).toMatchObject({ saved: true });
  });
});

const LISTENER = `
for (const type of ["focus", "input", "change", "blur"] as const) on[type](fields.note, (e) => log(type, e.value, fields.note.value, e.previous));
on.click(buttons.go, (e) => log("click", e.by));
on.load(() => log("load"));
on.saved(({ id }) => log("saved", id));
`;

describe('events', () => {
  const form = formWith([text('note'), text('other')], { buttons: [button('go')] });

  test('12 load comes once, a set fires focus, input, change and blur in this order', () => {
    const use = open({ form, scripts: { a: LISTENER } });
    expect(use.opened.log.map((line) => line.values)).toEqual([['load']]);
    expect(use.do({ set: 'note', to: 'x' }).log.map((line) => line.values)).toEqual([
      ['focus', null, null, null],
      ['input', 'x', null, null],
      ['change', 'x', 'x', null],
      ['blur', 'x', 'x', 'x'],
    ]);
    expect(use.do({ click: 'go' }).log.map((line) => line.values)).toEqual([['click', 'person']]);
    expect(use.do({ submit: true }).log.map((line) => line.values)).toEqual([['saved', 'new']]);
  });

  test('12 while typing the value is the committed one, and any other step first commits what was typed', () => {
    const use = open({ form, scripts: { a: LISTENER } });
    use.do({ input: 'note', to: 'a' });
    expect(use.value('note')).toBeNull();
    expect(use.do({ input: 'note', to: 'ab' }).log.map((line) => line.values[0])).toEqual([
      'input',
    ]);
    expect(use.do({ set: 'other', to: 'y' }).log.map((line) => line.values[0])).toEqual([
      'change',
      'blur',
    ]);
    expect(use.value('note')).toBe('ab');
  });

  test('12 pageChange can be stopped, forward turns check the page left, backward ones do not', () => {
    const pages = [
      page('one', [section('a', [text('note', { required: true })])]),
      page('two', [section('b', [text('crew')])]),
    ];
    const use = open({
      form: { name: 'f', title: 'F', pages },
      scripts: {
        a: 'on.pageChange((e) => { if (fields.note.value === "wait") e.stop("Not yet.", fields.note); });',
      },
    });
    use.do({ turnTo: 'two' });
    expect([use.seen.page, use.part('note').fault]).toEqual(['one', 'This has to be filled in.']);
    use.do({ set: 'note', to: 'wait' });
    use.do({ turnTo: 'two' });
    expect([use.seen.page, use.part('note').fault]).toEqual(['one', 'Not yet.']);
    use.do({ set: 'note', to: 'x' });
    use.do({ turnTo: 'two' });
    expect(use.seen.page).toBe('two');
    use.do({ set: 'note', to: null });
    use.do({ turnTo: 'one' });
    expect(use.seen.page).toBe('one');
  });

  test('13 change fires only when the value differs, whoever wrote it; loading a record fires none', () => {
    const scripts = {
      a: 'on.change(fields.note, ({ by }) => log(by));\non.change(fields.other, () => { fields.note.value = "s"; });',
    };
    const use = open({ form, scripts, record: { id: '1', values: { note: 'x' } } });
    expect(use.opened.log).toEqual([]);
    expect(use.do({ set: 'note', to: 'x' }).log).toEqual([]);
    expect(use.do({ set: 'note', to: 'y' }).log.map((line) => line.values)).toEqual([['person']]);
    expect(use.do({ set: 'other', to: '1' }).log.map((line) => line.values)).toEqual([['script']]);
  });

  test('13 several writes of one run are one event, from before the run to after it, none if equal', () => {
    const scripts = {
      a: 'on.change(fields.other, ({ value }) => { fields.note.value = "a"; fields.note.value = value === "back" ? null : "b"; });\non.change(fields.note, (e) => log(e.previous, e.value));',
    };
    const use = open({ form, scripts });
    expect(use.do({ set: 'other', to: 'back' }).log).toEqual([]);
    expect(use.do({ set: 'other', to: 'x' }).log.map((line) => line.values)).toEqual([[null, 'b']]);
  });

  test('14 handlers run in the order of behaviours, then as tied; numbers before names', () => {
    const tie = (name: string) =>
      `on.load(() => log("${name}1"));\non.load(() => log("${name}2"));`;
    const use = open({
      form,
      scripts: { zz: tie('zz'), '20-b': tie('20'), '3-a': tie('3'), aa: tie('aa') },
    });
    expect(use.opened.log.map((line) => line.values[0])).toEqual([
      '31',
      '32',
      '201',
      '202',
      'aa1',
      'aa2',
      'zz1',
      'zz2',
    ]);
  });

  test('14 a tie made in a handler is an error, but in load it lives with the record', () => {
    const scripts = {
      a: 'on.load(() => { on.change(fields.note, () => log("tied")); });\non.change(fields.other, () => { on.click(buttons.go, () => {}); });',
    };
    const use = open({ form, scripts });
    expect(use.do({ set: 'note', to: 'x' }).log.map((line) => line.values)).toEqual([['tied']]);
    expect(use.do({ set: 'other', to: 'x' }).errors[0]!.says).toContain(
      'on.click was called inside a handler',
    );
  });

  test('14 a tie gives a function that unties it', () => {
    const use = open({
      form,
      scripts: { a: 'const untie = on.click(buttons.go, () => { log("once"); untie(); });' },
    });
    expect([use.do({ click: 'go' }).log.length, use.do({ click: 'go' }).log.length]).toEqual([
      1, 0,
    ]);
  });
});

describe('settling', () => {
  const form = formWith([number('a'), number('b'), number('c'), text('note')]);

  test('15 events first in first out, rules once all are handled, nothing between', () => {
    const scripts = {
      h: 'on.change(fields.a, () => { fields.b.value = 1; fields.c.value = 1; log("a"); });\non.change(fields.b, () => log("b"));\non.change(fields.c, () => log("c"));',
      r: 'keep("r", () => { log("rule", fields.a.value, fields.b.value, fields.c.value); });',
    };
    const use = open({ form, scripts });
    expect(use.do({ set: 'a', to: 1 }).log.map((line) => line.values)).toEqual([
      ['a'],
      ['b'],
      ['c'],
      ['rule', 1, 1, 1],
    ]);
  });

  test('15 a read that changed and changed back causes no run', () => {
    const scripts = {
      h: 'on.change(fields.a, () => { fields.b.value = 1; });\non.change(fields.b, () => { fields.b.value = null; });',
      r: 'keep("r", () => { log(fields.b.value); });',
    };
    const use = open({ form, scripts });
    expect(use.do({ set: 'a', to: 1 }).log).toEqual([]);
  });

  test('16 a failed handler leaves no trace, the error names its line, the others go on, and the bar goes when it ends well', () => {
    const scripts = {
      bad: 'on.change(fields.a, ({ value }) => {\n  fields.b.value = 9;\n  fields.b.locked = true;\n  form.message("gone");\n  if (value === 1) throw new Error("no");\n});',
      good: 'on.change(fields.a, ({ value }) => { fields.c.value = value; });',
    };
    const use = open({ form, scripts });
    const answer = use.do({ set: 'a', to: 1 });
    expect(answer.errors).toEqual([
      { code: 'thrown', says: 'threw: no', behaviour: 'bad', line: 5 },
    ]);
    expect(answer.failing).toEqual(answer.errors);
    expect([
      use.value('a'),
      use.value('b'),
      use.part('b').locked,
      use.value('c'),
      answer.messages,
    ]).toEqual([1, null, false, 1, []]);
    expect(use.do({ set: 'a', to: 2 }).failing).toEqual([]);
    expect(use.value('b')).toBe(9);
  });

  test.each([
    ['while (true) {}', 'fuel'],
    ['for (;;);', 'fuel'],
    ['const f = (n: number): number => f(n + 1); f(1);', 'depth'],
    ['function f(): void { f(); } f();', 'depth'],
    ['do { try { while (true) {} } catch {} } while (true);', 'fuel'],
    ['(null as any).x;', 'type'],
    ['nowhere();', 'name'],
    ['new Array(-1);', 'range'],
  ])('16 a run out of bounds is ended with its words and line: %s', (code, expected) => {
    const use = open({
      form,
      scripts: { a: `on.change(fields.a, () => {\n  fields.b.value = 1;\n  ${code}\n});` },
    });
    const [error] = use.do({ set: 'a', to: 1 }).errors;
    expect(error).toMatchObject({ code: expected, behaviour: 'a', line: 3 });
    expect(use.value('b')).toBeNull();
  });

  test('16 a script that does not parse, or fails at its top level, is out alone and leaves no ties', () => {
    const scripts = {
      a: 'on.load(() => log("never"));\nthrow new Error("at once");',
      b: 'on.load( => )',
      c: 'on.load(() => log("c"));',
      d: 'fields.a.value = 1;',
    };
    const use = open({ form, scripts });
    expect(use.opened.log.map((line) => line.values)).toEqual([['c']]);
    expect(use.opened.errors.map(({ behaviour, code, line }) => [behaviour, code, line])).toEqual([
      ['a', 'thrown', 2],
      ['b', 'syntax', 1],
      ['d', 'wrong_use', 1],
    ]);
    expect(use.opened.errors[2]!.says).toContain('at the top level of the script');
  });

  test('16 the log lines of a failed run stay, struck', () => {
    const use = open({
      form,
      scripts: { a: 'on.change(fields.a, () => { log("seen"); throw 1; });' },
    });
    use.do({ set: 'a', to: 1 });
    expect(use.tape.find((entry) => entry.type === 'log')).toMatchObject({
      struck: true,
      values: ['seen'],
    });
  });

  test('17 beyond the limit everything scripts did in the step is taken back, what the person entered stays, the cycle is printed', () => {
    const scripts = {
      up: 'on.change(fields.a, ({ value }) => { fields.note.value = "x"; fields.b.value = value; });',
      down: 'on.change(fields.b, ({ value }) => { fields.a.value = (value ?? 0) + 1; });',
    };
    const use = open({ form, scripts });
    const answer = use.do({ set: 'a', to: 1 });
    expect([use.value('a'), use.value('b'), use.value('note')]).toEqual([1, null, null]);
    expect(answer.errors).toEqual([
      {
        code: 'cycle',
        says: 'ran 100 times within one step: it kept changing values and did not settle. All that scripts did in this step was taken back.',
        behaviour: 'up',
        line: 1,
        cycle: ['up (line 1) set b', 'down (line 1) set a'],
      },
    ]);
    expect(use.do({ set: 'note', to: 'y' }).errors).toEqual([]);
  });

  test('17 the limit is a setting of the form, and a cycle at load leaves base and record', () => {
    const limited = formWith([number('a'), number('b')], { settings: { runLimit: 5 } });
    const use = open({
      form: limited,
      record: { id: '1', values: { a: 1 } },
      scripts: {
        a: 'keep("up", () => { fields.b.value = (fields.a.value ?? 0) + 1; });\nkeep("down", () => { fields.a.value = fields.b.value; });',
      },
    });
    expect(use.opened.errors[0]).toMatchObject({
      code: 'cycle',
      cycle: expect.arrayContaining(['a (line 1) set b', 'a (line 2) set a']) as unknown,
    });
    expect([use.value('a'), use.value('b')]).toEqual([1, null]);
  });

  test('18 what a handler said stays until somebody says otherwise', () => {
    const use = open({
      form,
      scripts: {
        a: 'on.change(fields.a, ({ value }) => { if (value === 1) fields.b.locked = true; });',
      },
    });
    use.do({ set: 'a', to: 1 });
    use.do({ set: 'a', to: 2 });
    expect(use.part('b').locked).toBe(true);
  });

  test('18 an aspect a rule no longer mentions falls back to what stood below', () => {
    const scripts = {
      a: 'on.load(() => { fields.b.hint = "handler"; });\nkeep("first", () => { if (fields.a.value! > 5) fields.b.hint = "first"; });\nkeep("second", () => { if (fields.a.value! > 10) fields.b.hint = "second"; });',
    };
    const use = open({ form, scripts });
    const hints = [20, 7, 1].map((to) => (use.do({ set: 'a', to }), use.part('b').hint));
    expect(hints).toEqual(['second', 'first', 'handler']);
  });

  test('18 a rule runs at load after the load handlers, and again only when something it read differs', () => {
    const scripts = {
      a: 'keep("r", () => { log("rule", fields.a.value); });\non.load(() => { fields.a.value = 1; log("load"); });',
    };
    const use = open({ form, scripts });
    expect(use.opened.log.map((line) => line.values)).toEqual([['load'], ['rule', 1]]);
    use.do({ set: 'b', to: 1 });
    expect(runs(use.tape, 'r')).toBe(1);
    use.do({ set: 'a', to: 2 });
    expect(runs(use.tape, 'r')).toBe(2);
  });

  test('18 a rule sees what stands below it, never its own former words, and its own writes never set it off', () => {
    const scripts = {
      a: 'keep("flip", () => { fields.a.value; fields.b.locked = !fields.b.locked; });\nkeep("grow", () => { fields.c.value = (fields.c.value ?? 0) + (fields.a.value ?? 0); });',
    };
    const use = open({ form, scripts });
    const seen = [1, 2].map(
      (to) => (use.do({ set: 'a', to }), [use.part('b').locked, use.value('c')]),
    );
    expect(seen).toEqual([
      [true, 1],
      [true, 3],
    ]);
    expect(runs(use.tape, 'grow')).toBe(3);
  });

  test('18 when a rule fails its last good words stand, and what the failed run read counts as read', () => {
    const scripts = {
      a: 'keep("r", () => { fields.b.hint = "a" + fields.a.value; if (fields.a.value === 2 && fields.c.value === null) throw new Error("c"); });',
    };
    const use = open({ form, scripts });
    use.do({ set: 'a', to: 1 });
    use.do({ set: 'a', to: 2 });
    expect(use.part('b').hint).toBe('a1');
    use.do({ set: 'c', to: 1 });
    expect([use.part('b').hint, use.seen.failing]).toEqual(['a2', []]);
  });

  test('18 a value a rule wrote stays when it falls silent, and a person wins until something it reads changes', () => {
    const scripts = {
      a: 'keep("r", () => { if (fields.a.value !== null) fields.b.value = fields.a.value * 2; });',
    };
    const use = open({ form, scripts });
    use.do({ set: 'a', to: 2 });
    use.do({ set: 'b', to: 99 });
    expect(use.value('b')).toBe(99);
    use.do({ set: 'a', to: 3 });
    expect(use.value('b')).toBe(6);
    use.do({ set: 'a', to: null });
    expect(use.value('b')).toBe(6);
  });

  test.each(['form.clear()', 'form.submit()', 'pages.main.open()'])(
    '18 %s in a rule is an error',
    (code) => {
      const use = open({ form, scripts: { a: `keep("r", () => { ${code}; });` } });
      expect(use.opened.errors[0]).toMatchObject({
        code: 'wrong_use',
        says: `${code} cannot be done in a rule: a rule says what holds, a handler does things.`,
      });
    },
  );

  test('18 a message and a replacement in a rule are held', () => {
    const scripts = {
      a: 'keep("r", () => { if (fields.a.value === 1) { form.message("one", "warning"); form.replaceWith("Not needed."); } });',
    };
    const use = open({ form, scripts });
    use.do({ set: 'a', to: 1 });
    expect([use.seen.notice, use.seen.replaced]).toEqual([
      { text: 'one', tone: 'warning' },
      { text: 'Not needed.', final: false },
    ]);
    use.do({ set: 'a', to: 2 });
    expect([use.seen.notice, use.seen.replaced]).toEqual([null, null]);
  });

  test('19 of two rules the later wins, the tape marks the conflict, and when it falls silent the earlier shows', () => {
    const scripts = {
      a: 'keep("one", () => { fields.b.value = 1; fields.b.hint = "one"; });\nkeep("two", () => { if (fields.a.value === 1) { fields.b.value = 2; fields.b.hint = "two"; } });',
    };
    const use = open({ form, scripts });
    use.do({ set: 'a', to: 1 });
    expect([use.value('b'), use.part('b').hint]).toEqual([2, 'two']);
    expect(
      use.tape.filter((entry) => entry.type === 'conflict').map((entry) => entry.aspect),
    ).toEqual(['hint', 'value']);
    use.do({ set: 'a', to: 2 });
    expect([use.value('b'), use.part('b').hint]).toEqual([1, 'one']);
  });
});

describe('time', () => {
  const form = formWith([text('note'), number('a')]);

  test('24 Date, Temporal and Math.random follow the session, and replays are the same', () => {
    const scripts = {
      a: 'on.change(fields.a, () => log(new Date().toISOString(), Date.now(), Temporal.Now.plainDateISO().toString(), Math.random()));',
    };
    const lines = [1, 2].map(() => {
      const use = open({ form, scripts, seed: 42 });
      use.do({ set: 'a', to: 1 });
      use.do({ wait: 86_400_000 });
      return [
        use.do({ set: 'a', to: 2 }).log[0]!.values,
        use.do({ set: 'a', to: 3 }).log[0]!.values,
      ];
    });
    expect(lines[0]).toEqual(lines[1]);
    expect(lines[0]![0]!.slice(0, 3)).toEqual([
      '2031-05-03T09:00:00.000Z',
      Date.parse('2031-05-03T09:00:00Z'),
      '2031-05-03',
    ]);
    expect(lines[0]![0]![3]).not.toBe(lines[0]![1]![3]);
  });

  test('24 a step in a live form carries its time', () => {
    const use = open({
      form,
      clock: 1000,
      scripts: { a: 'on.change(fields.a, () => log(Date.now()));' },
    });
    expect(use.do({ set: 'a', to: 1, at: 500 }).log[0]!.values).toEqual([1500]);
    expect(use.do({ set: 'a', to: 2, at: 200 }).log[0]!.values).toEqual([1500]);
  });

  test('24 the clock cannot be asked at the top level', () => {
    const use = open({ form, scripts: { a: 'const now = Date.now();' } });
    expect(use.opened.errors[0]!.says).toContain('the time was asked at the top level');
  });
});

describe('submitting', () => {
  test('25 first all on-screen fields are checked, required and constraints, and false satisfies required', () => {
    const form = formWith([
      text('note', { required: true }),
      number('length', { min: 3, default: 1 }),
      yesNo('power', { required: true, default: false }),
      text('mail', { format: 'email', default: 'x' }),
    ]);
    const use = open({ form, scripts: { a: 'on.submit(() => log("never"));' } });
    const { submit, log } = use.do({ submit: true });
    expect(submit!.stops).toEqual([
      { part: 'note', says: 'This has to be filled in.' },
      { part: 'length', says: 'At least 3.' },
      { part: 'mail', says: 'This is not an e-mail address, such as name@example.org.' },
    ]);
    expect([submit!.saved, submit!.stoppedBy, log]).toEqual([false, 'note', []]);
    use.do({ set: 'note', to: 'x' });
    expect([use.part('note').fault, use.part('length').fault]).toEqual([null, 'At least 3.']);
  });

  test('25 locked fields are checked too', () => {
    expect(
      open({ form: formWith([text('note', { required: true, locked: true })]) }).do({
        submit: true,
      }).submit!.stoppedBy,
    ).toBe('note');
  });

  test('25 a problem stops on screen and not off screen', () => {
    const use = open({
      form: formWith([yesNo('off'), text('note')]),
      scripts: {
        a: 'keep("p", () => { fields.note.problem = "Bad."; fields.note.shown = fields.off.value !== true; });',
      },
    });
    expect(use.do({ submit: true }).submit).toMatchObject({
      saved: false,
      stops: [{ part: 'note', says: 'Bad.' }],
    });
    use.do({ set: 'off', to: true });
    expect(use.do({ submit: true }).submit).toMatchObject({ saved: true });
  });

  test('25 all submit handlers run, any may stop it, one that fails stops it too', () => {
    const scripts = {
      a: 'on.submit((e) => e.stop("First."));',
      b: 'on.submit((e) => { log("b"); e.stop("Second.", fields.note); });',
      c: 'on.submit(() => { throw new Error("x"); });',
    };
    const { submit, log } = open({ form: formWith([text('note')]), scripts }).do({ submit: true });
    expect(submit).toMatchObject({
      saved: false,
      stoppedBy: null,
      stops: [
        { part: null, says: 'First.' },
        { part: 'note', says: 'Second.' },
        { part: null, says: 'c failed, line 1.' },
      ],
    });
    expect(log).toHaveLength(1);
  });

  test('25 if handlers wrote values the fields are checked once more', () => {
    const use = open({
      form: formWith([number('length', { max: 5, default: 1 })]),
      scripts: { a: 'on.submit(() => { fields.length.value = 9; });' },
    });
    expect(use.do({ submit: true }).submit).toMatchObject({ saved: false, stoppedBy: 'length' });
  });

  test('25 after saving the session goes on with the saved record', () => {
    const scripts = {
      a: 'on.saved(({ id }) => { log(id, form.isNew, form.changed); fields.note.value = "later"; });\non.change(fields.other, () => log(form.isNew, form.record));',
    };
    const use = open({ form: formWith([text('note'), text('other')]), scripts });
    use.do({ set: 'note', to: 'x' });
    const answer = use.do({ submit: true });
    expect(answer.log[0]!.values).toEqual(['new', true, false]);
    expect([answer.submit!.values.note, answer.changed]).toEqual(['x', true]);
    expect(use.do({ set: 'other', to: 'y' }).log[0]!.values).toEqual([false, 'new']);
  });

  test('25 form.submit() is a step after this one, and an error while submitting', () => {
    const form = formWith([text('note')], { buttons: [button('send')] });
    const use = open({
      form,
      scripts: { a: 'on.click(buttons.send, () => { form.submit(); fields.note.value = "x"; });' },
    });
    const answer = use.do({ click: 'send' });
    expect(answer.submit).toMatchObject({ saved: true, values: { note: 'x' } });
    expect(use.tape.filter((entry) => entry.type === 'step').map((entry) => entry.by)).toEqual([
      'person',
      'script',
    ]);
    const other = open({ form, scripts: { a: 'on.submit(() => form.submit());' } });
    expect(other.do({ submit: true }).errors[0]!.says).toBe(
      'form.submit() was called while the form is being submitted.',
    );
  });

  test('25 form.clear() sets every field to its default and leaves other aspects', () => {
    const form = formWith([text('note', { default: 'd' }), number('length')], {
      buttons: [button('over')],
    });
    const use = open({
      form,
      scripts: { a: 'on.click(buttons.over, () => { fields.note.locked = true; form.clear(); });' },
    });
    use.do({ set: 'note', to: 'x' });
    use.do({ set: 'length', to: 4 });
    use.do({ click: 'over' });
    expect([use.value('note'), use.value('length'), use.part('note').locked]).toEqual([
      'd',
      null,
      true,
    ]);
  });

  test('10 hidden and locked buttons refuse people', () => {
    const use = open({
      form: formWith([text('note')], {
        buttons: [button('one', { hidden: true }), button('two', { locked: true })],
      }),
    });
    expect([
      use.do({ click: 'one' }).refused,
      use.do({ click: 'two' }).refused,
      use.do({ click: 'three' }).refused,
    ]).toEqual(['One is hidden', 'Two is locked', 'there is no button "three"']);
  });

  test('27 traced and untraced come out the same', () => {
    const scripts = {
      a: 'keep("r", () => { fields.b.value = (fields.a.value ?? 0) ** 2; });\non.change(fields.b, ({ value }) => { if (value === 9) form.message("nine"); });',
    };
    const form = formWith([number('a'), number('b')]);
    const [traced, untraced] = [
      inMachine({ form, scripts }, true),
      inMachine({ form, scripts }, false),
    ];
    const steps = [1, 3, 3, 4].map((to) => ({ set: 'a', to }));
    const without = (answers: { tape: unknown }[]) =>
      answers.map((answer) => ({ ...answer, tape: null }));
    const other = inMachine({ form, scripts }, true);
    const first = steps.map((step) => other.do(step));
    const second = inMachine({ form, scripts }, false);
    expect(without(steps.map((step) => second.do(step)))).toEqual(without(first));
    expect(untraced.tape).toEqual([]);
    expect(traced.tape.length).toBeGreaterThan(0);
  });
});
