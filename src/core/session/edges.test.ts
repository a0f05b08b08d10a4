/** Sentences 20, 22 and 28 by their number, and small things that a change could lose without anybody noticing. */
import { beforeAll, describe, expect, test } from 'vitest';
import { button, choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { both, bootMachine, direct, type Use } from '../../../tests/support/hosts';

beforeAll(bootMachine);

const logged = (answer: { log: { values: readonly unknown[] }[] }) =>
  answer.log.map(({ values }) => values);
const list = formWith(
  [rows('list', [number('n', { max: 9 }), text('note', { required: true })]), text('other')],
  { buttons: [button('go'), button('look')] },
);

describe('20 rows', () => {
  test('20 nothing said of one row touches another, and moving or removing a row carries its state along', () => {
    const open = both({
      form: list,
      scripts: {
        a: 'on.change(fields.list.each.n, ({ row, value }) => { row.fields.note.hint = `n is ${value}`; row.fields.note.required = false; });',
      },
    });
    for (const n of [1, 2, 3]) open.do({ addRow: 'list', with: { n } });
    open.do({ set: 'list[1].n', to: 7 });
    const hints = () => open.seen.rows.list!.order.map((_, i) => open.part(`list[${i}].note`).hint);
    expect(hints()).toEqual([null, 'n is 7', null]);
    open.do({ moveRow: 'list[1]', to: 2 });
    expect([
      hints(),
      open.part('list[2].note').required,
      open.part('list[1].note').required,
    ]).toEqual([[null, null, 'n is 7'], false, true]);
    open.do({ removeRow: 'list[0]' });
    expect(hints()).toEqual([null, 'n is 7']);
  });

  test('20 a rule for each row says something of its own row alone', () => {
    const open = both({
      form: list,
      scripts: {
        a: 'keep.each(fields.list, "own", (row) => { if (row.index === 1) fields.list.rows[0]!.fields.note.hint = "other"; });',
      },
    });
    open.do({ addRow: 'list', with: [{}, {}] });
    expect(open.seen.failing.map(({ says }) => says)).toEqual([
      'list#1.note is not in the row that this rule runs for. A rule for each row says something of its own row alone.',
    ]);
  });

  test('a row added and removed again before its rules had their turn runs none', () => {
    const scripts = {
      a: 'keep.each(fields.list, "seen", (row) => { log("ran", row.fields.n.value); });\non.click(buttons.go, () => { const row = fields.list.add({ n: 5 }); fields.list.remove(row); fields.list.add({ n: 6 }); });',
    };
    const open = both({ form: list, scripts });
    const answer = open.do({ click: 'go' });
    expect([logged(answer), answer.errors]).toEqual([[['ran', 6]], []]);
  });

  test('a removed row keeps no faults, and is asked for none', () => {
    const open = both({ form: list });
    open.do({ addRow: 'list', with: [{ note: 'a' }, {}] });
    open.do({ submit: true });
    expect(open.part('list[1].note').fault).toBe('This has to be filled in.');
    open.do({ removeRow: 'list[1]' });
    open.do({ addRow: 'list' });
    expect(open.part('list[1].note').fault).toBeNull();
    open.do({ removeRow: 'list[1]' });
    expect(open.do({ submit: true }).submit).toMatchObject({ saved: true, stops: [] });
  });

  test('a row may be moved to the last place and not one past it', () => {
    const open = both({ form: list });
    open.do({ addRow: 'list', with: [{ n: 1 }, { n: 2 }, { n: 3 }] });
    expect(open.do({ moveRow: 'list[0]', to: 3 }).refused).toBe(
      'List has 3 rows, so none can be moved to place 3',
    );
    expect(open.do({ moveRow: 'list[0]', to: 2 }).refused).toBeNull();
    expect(open.value('list')).toMatchObject([{ n: 2 }, { n: 3 }, { n: 1 }]);
  });
});

describe('22 the same handler started again', () => {
  const waits =
    'on.change(fields.a, async ({ value }) => { fields.b.hint = `asked ${value}`; fields.c.hint = "mine"; await after(100); log("done", value); fields.b.hint = undefined; });\non.change(fields.b, () => { fields.c.hint = "other"; });';
  const form = formWith([number('a'), number('b'), number('c')]);

  test('22 an earlier open run is superseded: not resumed, and its own words alone are taken back', () => {
    const open = both({ form, scripts: { a: waits } });
    open.do({ set: 'a', to: 1 });
    open.do({ set: 'b', to: 1 });
    open.do({ set: 'a', to: 2 });
    // What another handler said over its word stays; the new run says its own.
    expect([open.part('b').hint, open.part('c').hint]).toEqual(['asked 2', 'mine']);
    expect(logged(open.do({ wait: 200 }))).toEqual([['done', 2]]);
    const other = both({
      form,
      scripts: {
        a: waits
          .replace(
            'fields.b.hint = `asked ${value}`;',
            'if (value === 1) fields.b.hint = "asked 1";',
          )
          .replace('fields.c.hint = "mine";', 'if (value === 1) fields.c.hint = "mine";'),
      },
    });
    other.do({ set: 'a', to: 1 });
    other.do({ set: 'b', to: 1 });
    other.do({ set: 'a', to: 2 });
    expect([other.part('b').hint, other.part('c').hint]).toEqual([null, 'other']);
  });

  test('22 with overlap "all" both go on, and for another row nothing is superseded', () => {
    const both2 = both({
      form,
      scripts: {
        a: 'on.change(fields.a, async ({ value }) => { await after(100); log(value); }, { overlap: "all" });',
      },
    });
    both2.do({ set: 'a', to: 1 });
    both2.do({ set: 'a', to: 2 });
    expect(logged(both2.do({ wait: 100 }))).toEqual([[1], [2]]);
    const ofRows = both({
      form: list,
      scripts: {
        a: 'on.change(fields.list.each.n, async ({ value }) => { await after(100); log(value); });',
      },
    });
    ofRows.do({ addRow: 'list', with: [{}, {}] });
    ofRows.do({ set: 'list[0].n', to: 1 });
    ofRows.do({ set: 'list[1].n', to: 2 });
    ofRows.do({ set: 'list[0].n', to: 3 });
    expect(logged(ofRows.do({ wait: 100 }))).toEqual([[2], [3]]);
  });
});

describe('28 a form opened from a parent', () => {
  const form = formWith([text('note')], { buttons: [button('go')] });
  const parent = {
    form: 'vessel',
    record: 'v-1',
    fields: [number('length'), text('latest')],
    values: { length: 88 },
  };
  const child = (code: string) =>
    both({
      form,
      scripts: { a: `on.click(buttons.go, async () => { ${code} });` },
      opening: { parent },
    });
  const pressed = (open: Use) => [open.do({ click: 'go' }), open.do({ wait: 10 })];

  test('28 reads the parent’s values and asks for one to be set', () => {
    const open = child(
      'log(parent!.get("length"), parent!.get("latest")); await parent!.set("latest", "now"); log("set");',
    );
    const [asked, later] = pressed(open);
    expect([logged(asked!), asked!.toParent, logged(later!)]).toEqual([
      [[88, null]],
      [{ set: 'latest', to: 'now' }],
      [['set']],
    ]);
  });

  test('28 what the parent does not take rejects, and a field it does not have is named', () => {
    const refused = pressed(
      child(
        'try { await parent!.set("length", "long"); } catch (error) { log(String((error as Error).message)); }',
      ),
    );
    expect([refused[0]!.toParent, logged(refused[1]!)]).toEqual([
      [],
      [['parent.set failed: Length takes a finite number']],
    ]);
    expect(pressed(child('parent!.get("draught");'))[0]!.errors[0]!.says).toBe(
      'parent has no field "draught": the form vessel has none.',
    );
  });
});

describe('small things', () => {
  test('a fault is told only on screen: one that a script set comes back with its field, one of a check does not', () => {
    const open = both({
      form: formWith([
        text('note'),
        text('needed', { required: true, default: 'x' }),
        choice('show', ['yes', 'no']),
      ]),
      scripts: {
        a: 'keep("r", () => { fields.note.shown = fields.show.value !== "no"; fields.needed.shown = fields.show.value !== "no"; });\non.submit((event) => event.stop("Not like this.", fields.note));',
      },
    });
    const faults = () => [open.part('note').fault, open.part('needed').fault];
    open.do({ submit: true });
    open.do({ set: 'needed', to: null });
    expect(faults()).toEqual(['Not like this.', null]);
    open.do({ set: 'show', to: 'no' });
    expect(faults()).toEqual([null, null]);
    open.do({ set: 'show', to: 'yes' });
    expect(faults()).toEqual(['Not like this.', null]);
    open.do({ submit: true });
    expect(faults()).toEqual([null, 'This has to be filled in.']);
  });

  test('23 a submission waits thirty seconds of the session’s clock, and not longer', () => {
    const waiting = (ms: number) =>
      both({
        form: formWith([text('note')]),
        scripts: { a: `on.change(fields.note, async () => { await after(${ms}); });` },
      });
    const submitted = (ms: number) => {
      const open = waiting(ms);
      open.do({ set: 'note', to: 'x' });
      return open.do({ submit: true }).submit;
    };
    expect(submitted(30_000)).toMatchObject({ saved: true });
    expect(submitted(30_001)).toMatchObject({
      saved: false,
      stops: [{ part: null, says: 'Still waiting for after after 30 seconds.' }],
    });
  });

  test('16 a failed run leaves no message, no wish to submit and nothing for the parent; its log lines stay, struck', () => {
    const open = both({
      form: list,
      scripts: {
        a: 'on.click(buttons.go, () => { log("here"); form.message("gone"); form.submit(); throw new Error("no"); });',
      },
    });
    const answer = open.do({ click: 'go' });
    expect([answer.messages, answer.submit, logged(answer)]).toEqual([[], null, [['here']]]);
    expect(open.tape.find((entry) => entry.type === 'log')).toMatchObject({ struck: true });
  });

  test('16 a wrong assignment ends the run even where the script catches it', () => {
    const open = both({
      form: formWith([number('a'), number('b')]),
      scripts: {
        a: 'on.change(fields.a, () => { try { fields.b.value = "x" as never; } catch { /* caught */ } fields.b.value = 4; });',
      },
    });
    expect([open.do({ set: 'a', to: 1 }).errors.map(({ code }) => code), open.value('b')]).toEqual([
      ['wrong_value'],
      null,
    ]);
  });

  test('12 while typing `value` is the committed one, and any other step commits what was typed', () => {
    const open = both({
      form: formWith([text('a'), text('b')], { buttons: [button('go')] }),
      scripts: {
        a: 'on.input(fields.a, ({ value }) => log("typed", value, fields.a.value));\non.change(fields.a, ({ value }) => log("changed", value));\non.blur(fields.a, () => log("left"));\non.click(buttons.go, () => log("pressed", fields.a.value));',
      },
    });
    expect(logged(open.do({ input: 'a', to: 'x' }))).toEqual([['typed', 'x', null]]);
    expect(logged(open.do({ click: 'go' }))).toEqual([
      ['changed', 'x'],
      ['left'],
      ['pressed', 'x'],
    ]);
    open.do({ input: 'a', to: 'y' });
    expect(logged(open.do({ set: 'a', to: 'z' }))).toEqual([
      ['typed', 'z', 'x'],
      ['changed', 'z'],
      ['left'],
    ]);
  });

  test('ties are made at the top level and while a record is loaded, in no other handler and in no rule', () => {
    const failing = (script: string) => {
      const open = both({ form: formWith([text('note'), text('other')]), scripts: { a: script } });
      return open.do({ set: 'note', to: 'x' }).errors[0]!.says;
    };
    const body = '() => { fields.other.hint = "late"; }';
    expect(
      failing(`on.change(fields.note, () => { on.change(fields.other, ${body}); });`),
    ).toContain('on.change was called inside a handler');
    expect(failing(`on.change(fields.note, () => { keep("late", ${body}); });`)).toContain(
      'keep was called inside a handler',
    );
    expect(
      failing(`keep("now", () => { if (fields.note.value !== null) on.submit(${body}); });`),
    ).toContain('on.submit was called inside a handler');
    const loaded = both({
      form: formWith([text('note'), text('other')]),
      scripts: { a: `on.load(() => { keep("late", ${body}); });` },
    });
    expect(loaded.part('other').hint).toBe('late');
  });

  test('what stands in a section goes off the screen and is locked with it, where nothing else changed in the step', () => {
    const form = formWith([text('note'), rows('list', [text('goods')])], {
      buttons: [button('hide'), button('lock')],
    });
    const open = both({
      form,
      scripts: {
        a: 'on.click(buttons.hide, () => { sections.stay.shown = !sections.stay.shown; });\non.click(buttons.lock, () => { sections.stay.locked = !sections.stay.locked; });',
      },
    });
    open.do({ addRow: 'list' });
    const now = () =>
      ['note', 'list', 'list[0].goods'].map((part) => [
        open.part(part).onScreen,
        open.part(part).editable,
      ]);
    const all = (onScreen: boolean, editable: boolean) => [0, 1, 2].map(() => [onScreen, editable]);
    expect(now()).toEqual(all(true, true));
    open.do({ click: 'hide' });
    expect(now()).toEqual(all(false, true));
    open.do({ click: 'hide' });
    open.do({ click: 'lock' });
    expect(now()).toEqual(all(true, false));
    open.do({ click: 'lock' });
    expect(now()).toEqual(all(true, true));
  });

  test('numbers of a trace are those the script had, whole or not', () => {
    const open = both({
      form: formWith([text('note')]),
      scripts: {
        a: 'on.change(fields.note, () => {\n  const whole = 7;\n  const half = 1.5;\n  const large = 2 ** 40;\n  const below = -3;\n});',
      },
    });
    open.do({ set: 'note', to: 'x' });
    const run = open.tape.find((entry) => entry.type === 'run');
    expect(run?.type === 'run' && run.values.map(({ what, value }) => [what, value])).toEqual([
      ['whole', 7],
      ['half', 1.5],
      ['large', 2 ** 40],
      ['below', -3],
    ]);
  });

  test('conditions are told from what is assigned, where both read the same', () => {
    const open = both({
      form: formWith([text('note')]),
      scripts: {
        a: 'let deep: boolean;\non.change(fields.note, ({ value }) => {\n  deep = value === "x";\n  if (deep) log(value ? 1 : 2);\n  return deep;\n});',
      },
    });
    open.do({ set: 'note', to: 'x' });
    const run = open.tape.findLast((entry) => entry.type === 'run');
    expect(run?.type === 'run' && run.values).toEqual([
      { line: 3, what: 'deep', value: true },
      { line: 4, what: 'deep', value: true, condition: true },
      { line: 4, what: 'value', value: 'x', condition: true },
      { line: 5, what: 'return', value: true },
    ]);
  });

  test('a form whose every field is cleared when hidden clears them', () => {
    const open = both({
      form: formWith([text('a', { whenHidden: 'clear' }), text('b', { whenHidden: 'clear' })]),
      scripts: { a: 'keep("b", () => { fields.b.shown = fields.a.value !== "hide"; });' },
    });
    open.do({ set: 'b', to: 'x' });
    open.do({ set: 'a', to: 'hide' });
    expect([open.part('b').onScreen, open.value('b')]).toEqual([false, null]);
  });

  test('a submission from load is no part of the opening: what it hides is cleared, and counts as changed', () => {
    const open = both({
      form: formWith([text('a'), text('b', { whenHidden: 'clear' })]),
      record: { id: '1', values: { a: 'x', b: 'y' } },
      scripts: {
        a: 'on.load(() => form.submit());\non.submit((event) => { fields.b.shown = false; event.stop("Not yet."); });',
      },
    });
    expect([open.value('b'), open.seen.changed]).toEqual([null, true]);
  });

  test('nothing is found in a table for nothing', () => {
    const named = {
      name: 'named',
      title: 'Named',
      key: 'code',
      columns: [{ name: 'code', label: 'Code', kind: 'text' as const }],
      rows: [{ code: 'null' }, { code: 'undefined' }],
    };
    const open = direct({
      form: formWith([text('note')]),
      tables: [named as never],
      scripts: {
        a: 'on.load(() => { log(tables.named.find(null), tables.named.find(undefined as never), tables.named.find("null")?.code); });',
      },
    });
    expect(logged(open.opened)).toEqual([[null, null, 'null']]);
  });

  test('names such as constructor are no parts, aspects or services', () => {
    const open = direct({
      form: formWith([text('note')]),
      scripts: {
        a: 'on.load(() => { log(typeof (fields as any).constructor, typeof (services as any).constructor, typeof (form as any).constructor); });',
      },
    });
    expect(logged(open.opened)).toEqual([['undefined', 'undefined', 'undefined']]);
    expect([
      open.do({ set: 'constructor', to: 'x' }).refused,
      open.do({ turnTo: '__proto__' }).refused,
      open.do({ addRow: 'list', with: {} }).refused,
    ]).toEqual([
      'there is no field "constructor"',
      'there is no page "__proto__"',
      'there is no field "list"',
    ]);
  });
});
