/** A step that does not settle is taken back whole: nothing of what scripts did in it goes on, shows or is reported. */
import { beforeAll, describe, expect, test } from 'vitest';
import {
  berths,
  button,
  formWith,
  lookup,
  number,
  page,
  rows,
  section,
  text,
} from '../../../tests/support/forms';
import { both, bootMachine } from '../../../tests/support/hosts';
import { standingClaims, Tape } from '../tape/tape';

beforeAll(bootMachine);

/** Two handlers that never come to rest once `go` is 1; they run first. */
const CHASE =
  'on.change(fields.go, ({ value }) => { if (value === 1) fields.x.value = 1; });\non.change(fields.x, ({ value }) => { fields.y.value = (value ?? 0) + 1; });\non.change(fields.y, ({ value }) => { fields.x.value = (value ?? 0) + 1; });';
const form = formWith(
  [
    number('go'),
    number('x'),
    number('y'),
    text('note'),
    text('other'),
    rows('list', [number('n')]),
  ],
  { buttons: [button('press')] },
);
const use = (scripts: Record<string, string>, more: object = {}) =>
  both({
    form,
    scripts: { ...scripts, 'z-chase': CHASE },
    tables: [berths],
    services: [lookup],
    ...more,
  });

describe('17 what a step that did not settle had begun', () => {
  test('a handler that began to wait in it does not go on', () => {
    const open = use({
      a: 'on.change(fields.go, async () => { await after(50); fields.note.value = "late"; log("late"); });',
    });
    const answer = open.do({ set: 'go', to: 1 });
    expect([
      answer.errors.map(({ code }) => code),
      answer.waiting,
      open.value('go'),
      open.value('x'),
    ]).toEqual([['cycle'], [], 1, null]);
    expect([open.do({ wait: 1000 }).log, open.value('note')]).toEqual([[], null]);
  });

  test('a run that was superseded in it waits again and goes on', () => {
    const open = use({
      a: 'on.change(fields.note, async ({ value }) => { fields.other.hint = `asking ${value}`; await after(50); log("went on with", value); });\non.change(fields.go, () => { fields.note.value = "by script"; });',
    });
    open.do({ set: 'note', to: 'first' });
    const answer = open.do({ set: 'go', to: 1 });
    expect([
      answer.errors[0]!.code,
      answer.waiting.length,
      open.value('note'),
      open.part('other').hint,
    ]).toEqual(['cycle', 1, 'first', 'asking first']);
    expect(open.do({ wait: 50 }).log.map(({ values }) => values)).toEqual([
      ['went on with', 'first'],
    ]);
  });

  test('a run that went on in it is over, since it cannot go on twice', () => {
    const open = use({
      a: 'on.change(fields.note, async () => { await after(50); fields.go.value = 1; await after(50); log("never"); });',
    });
    open.do({ set: 'note', to: 'x' });
    const answer = open.do({ wait: 60 });
    expect([answer.errors.map(({ code }) => code), answer.waiting, open.value('go')]).toEqual([
      ['cycle'],
      [],
      null,
    ]);
    expect(open.do({ wait: 1000 }).log).toEqual([]);
  });

  test('a call to a service made in it is never answered', () => {
    const open = use({
      a: 'on.change(fields.go, () => { void services.register.find({ code: "nq1" }).then(() => log("answered")); });',
    });
    expect(open.do({ set: 'go', to: 1 }).waiting).toEqual([]);
    expect(open.do({ wait: 5000 }).log).toEqual([]);
  });

  test('messages, what goes to the parent and the wish to submit go with it; log lines stay, struck', () => {
    const open = use(
      {
        a: 'on.change(fields.go, () => { log("was here"); form.message("done"); void parent!.set("note", "x"); form.submit(); });',
      },
      { opening: { parent: { form: 'p', record: '1', fields: [text('note')], values: {} } } },
    );
    const answer = open.do({ set: 'go', to: 1 });
    expect([
      answer.messages,
      answer.toParent,
      answer.submit,
      answer.log.map(({ values }) => values),
    ]).toEqual([[], [], null, [['was here']]]);
    expect(open.tape.filter((entry) => entry.type === 'log')).toMatchObject([{ struck: true }]);
  });

  test('ties made while the record was loaded stay out with the opening that did not settle', () => {
    const open = use({
      a: 'on.load(() => { on.change(fields.note, () => log("tied")); keep("held", () => { fields.other.hint = "held"; }); fields.go.value = 1; });',
    });
    expect(open.opened.errors.map(({ code }) => code)).toEqual(['cycle']);
    expect([open.do({ set: 'note', to: 'x' }).log, open.part('other').hint]).toEqual([[], null]);
  });

  test('the margin tells of nothing that was undone', () => {
    const open = use({
      a: 'on.change(fields.go, () => { fields.note.hint = "undone"; });\nkeep("rule", () => { if (fields.go.value === 1) fields.other.required = true; });',
    });
    open.do({ set: 'go', to: 1 });
    const tape = new Tape(open.tape);
    expect(standingClaims(tape).get('note')).toBeUndefined();
    expect([open.part('note').hint, open.part('other').required]).toEqual([null, false]);
  });

  test('what had strayed, and what was there before, are as they were', () => {
    const open = use(
      {
        a: 'on.change(fields.go, () => { fields.note.value = "set"; });\non.click(buttons.press, () => log(fields.other.previous));',
      },
      { record: { id: '1', values: { note: 7, other: 'first' } } },
    );
    expect(open.part('note').stray).toBe(7);
    open.do({ set: 'other', to: 'second' });
    open.do({ set: 'go', to: 1 });
    expect([open.part('note').stray, open.value('note')]).toEqual([7, null]);
    expect(open.do({ click: 'press' }).log[0]!.values).toEqual(['first']);
  });

  test('rows that scripts added go, the person’s row stays', () => {
    const open = use({
      a: 'on.rowAdded(fields.list, () => { fields.go.value = 1; fields.list.add({ n: 9 }); });',
    });
    open.do({ addRow: 'list', with: { n: 4 } });
    expect(open.value('list')).toEqual([{ n: 4 }]);
  });

  test('rules say afterwards what they said before, and the next step is like any other', () => {
    const open = use({
      a: 'keep("hint", () => { fields.other.hint = `x is ${fields.x.value}`; });',
    });
    open.do({ set: 'go', to: 1 });
    expect(open.part('other').hint).toBe('x is null');
    open.do({ set: 'go', to: 2 });
    open.do({ set: 'note', to: 'n' });
    expect(open.do({ submit: true }).submit).toMatchObject({
      saved: true,
      values: { go: 2, x: null, note: 'n' },
    });
  });

  test('what was saved stays saved when the saved handlers do not settle', () => {
    const open = use({
      a: 'on.submit(() => { fields.note.value = "by submit"; });\non.saved(() => { fields.go.value = 1; });',
    });
    const answer = open.do({ submit: true });
    expect([answer.submit, answer.errors.map(({ code }) => code)]).toMatchObject([
      { saved: true, values: { note: 'by submit' } },
      ['cycle'],
    ]);
    expect([open.value('note'), open.value('go'), answer.changed]).toEqual([
      'by submit',
      null,
      false,
    ]);
  });

  test('17 the limit of runs is exact: so many are allowed, one more is not', () => {
    const counting = (limit: number) =>
      both({
        form: { ...form, settings: { runLimit: limit } },
        scripts: {
          a: 'on.change(fields.x, ({ value }) => { if (value! < 5) fields.x.value = value! + 1; });',
        },
      });
    // Entering 1 runs it for 1, 2, 3, 4 and 5.
    const five = counting(5);
    expect([five.do({ set: 'x', to: 1 }).errors, five.value('x')]).toEqual([[], 5]);
    const four = counting(4);
    expect([four.do({ set: 'x', to: 1 }).errors.map(({ code }) => code), four.value('x')]).toEqual([
      ['cycle'],
      1,
    ]);
  });
});

test('8 with three pages and more, leaving a hidden one turns to the nearest that is shown', () => {
  const pages = ['one', 'two', 'three', 'four', 'five'].map((name) =>
    page(name, [section(`in_${name}`, [text(`of_${name}`)])]),
  );
  const scripts = {
    a: 'keep("p", () => { const off = fields.of_one.value ?? ""; for (const name of ["two", "three", "four", "five"] as const) pages[name].shown = !off.includes(name); });',
  };
  const at = (start: string, off: string) => {
    const open = both({
      form: { ...formWith([]), pages, settings: { checkPages: false } },
      scripts,
    });
    open.do({ turnTo: start });
    open.do({ set: 'of_one', to: off });
    return open.seen.page;
  };
  expect([
    at('four', 'four'),
    at('four', 'four three'),
    at('five', 'five'),
    at('three', 'three two'),
    at('five', 'five four three'),
  ]).toEqual(['three', 'five', 'four', 'four', 'two']);
});
