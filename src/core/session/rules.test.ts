/** Rules hold whatever their order (docs/decisions/0001). */
import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, page, rows, section, text, yesNo } from '../../../tests/support/forms';
import { both, bootMachine, direct } from '../../../tests/support/hosts';
import { shareOf } from '../../../tests/support/thorough';

beforeAll(bootMachine);

const form = {
  ...formWith([]),
  pages: [
    page('main', [
      section('p', [number('a'), number('b'), text('note')]),
      section('q', [number('c'), number('d'), yesNo('on')]),
    ]),
  ],
};
const runs = (tape: { type: string }[], title: string) =>
  tape.filter(
    (entry) => entry.type === 'run' && (entry as never as { title: string }).title === title,
  ).length;

describe('18 a rule sees every part as it shows now', () => {
  test('an earlier rule follows what a later one steers', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("early", () => { fields.note.shown = sections.q.onScreen; fields.note.hint = fields.c.required ? "needed" : "free"; });',
        b: 'keep("late", () => { sections.q.shown = fields.a.value === 1; fields.c.required = fields.a.value === 1; });',
      },
    });
    const seen = () => [open.part('note').shown, open.part('note').hint];
    expect(seen()).toEqual([false, 'free']);
    open.do({ set: 'a', to: 1 });
    expect(seen()).toEqual([true, 'needed']);
    open.do({ set: 'a', to: 2 });
    expect(seen()).toEqual([false, 'free']);
  });

  test('of an aspect that it says itself it sees what stands below its own words, also inside onScreen and editable', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("own", () => { fields.a.value; log(fields.note.onScreen, fields.note.editable, fields.note.shown); fields.note.shown = false; fields.note.locked = true; log(fields.note.onScreen, fields.note.editable, fields.note.shown); });',
      },
    });
    expect(open.opened.log.map(({ values }) => values)).toEqual([
      [true, true, true],
      [false, false, false],
    ]);
    expect(open.do({ set: 'a', to: 1 }).log.map(({ values }) => values)).toEqual([
      [true, true, true],
      [false, false, false],
    ]);
    expect(runs(open.tape, 'own')).toBe(2);
  });

  test('18 a rule that reads an aspect and speaks of it later runs once more where that lets it see something else', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("first", () => { log("first", fields.note.hint); fields.note.hint = "first"; });',
        b: 'keep("second", () => { if (fields.a.value === 1) fields.note.hint = "second"; });',
      },
    });
    // Of what the later rule says it sees nothing, since it speaks of the hint itself.
    expect(open.do({ set: 'a', to: 1 }).log).toEqual([]);
    expect(open.part('note').hint).toBe('second');
    const other = both({
      form,
      scripts: {
        a: 'keep("first", () => { const { hint } = fields.note; log(hint); if (fields.b.value === 1) fields.note.hint = "first"; });',
        b: 'keep("second", () => { fields.note.hint = "second"; });',
      },
    });
    expect(other.opened.log.map(({ values }) => values)).toEqual([[null], ['second']]);
    // It begins to speak of it, so that it now sees the base.
    expect(other.do({ set: 'b', to: 1 }).log.map(({ values }) => values)).toEqual([
      ['second'],
      [null],
    ]);
  });

  test('17 rules that chase each other end as a cycle that is printed', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("one", () => { fields.b.locked = fields.on.value === true && !fields.c.locked; });',
        b: 'keep("two", () => { fields.c.locked = fields.b.locked; });',
      },
    });
    const answer = open.do({ set: 'on', to: true });
    expect(answer.errors).toMatchObject([{ code: 'cycle' }]);
    expect(answer.errors[0]!.cycle!.slice(-2).sort()).toEqual([
      'a (line 1) set b',
      'b (line 1) set c',
    ]);
    expect([open.part('b').locked, open.part('c').locked, open.value('on')]).toEqual([
      false,
      false,
      true,
    ]);
  });
});

describe('15 values of rules', () => {
  test('are put in place when no rule is left to run: nothing is written from a state that does not last', () => {
    const scripts = {
      a: 'keep("sum", () => { fields.c.value = (fields.a.value ?? 0) + (fields.note.required ? 100 : 0); });',
      b: 'keep("needed", () => { fields.note.required = (fields.a.value ?? 0) > 5; });\non.change(fields.c, ({ value, previous }) => log(previous, value));',
    };
    const open = both({ form, scripts });
    expect(open.do({ set: 'a', to: 6 }).log.map(({ values }) => values)).toEqual([[0, 106]]);
  });

  test('19 of several rules the winner’s is written, once', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("one", () => { fields.c.value = fields.a.value; });',
        b: 'keep("two", () => { if (fields.a.value !== null && fields.a.value > 5) fields.c.value = 5; });',
        c: 'on.change(fields.c, ({ value }) => log(value));',
      },
    });
    expect(open.do({ set: 'a', to: 9 }).log.map(({ values }) => values)).toEqual([[5]]);
    expect(open.do({ set: 'a', to: 3 }).log.map(({ values }) => values)).toEqual([[3]]);
    expect(open.do({ set: 'a', to: 8 }).log.map(({ values }) => values)).toEqual([[5]]);
  });

  test('19 who wins a conflict is told, whichever rule ran last', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("one", () => { fields.note.hint = `one ${fields.a.value}`; });',
        b: 'keep("two", () => { fields.note.hint = `two ${fields.b.value}`; });',
      },
    });
    open.do({ set: 'a', to: 1 });
    expect(open.part('note').hint).toBe('two null');
    expect(open.tape.filter((entry) => entry.type === 'conflict').map(({ wins }) => wins)).toEqual([
      'two',
      'two',
    ]);
  });

  test('18 a rule that writes what it reads, or what goes into what it reads, is not set off by that', () => {
    const list = formWith([
      number('a'),
      number('total'),
      rows('list', [number('n'), number('share')]),
    ]);
    const open = both({
      form: list,
      scripts: {
        a: 'keep("grow", () => { fields.total.value = (fields.total.value ?? 0) + (fields.a.value ?? 0); });\nkeep("shares", () => { const all = fields.list.sum("share"); for (const row of fields.list.rows) row.fields.share.value = (row.fields.n.value ?? 0) + all * 0; });',
      },
    });
    open.do({ set: 'a', to: 2 });
    open.do({ addRow: 'list', with: [{ n: 1 }, { n: 2 }] });
    expect([open.value('total'), open.value('list')]).toEqual([
      2,
      [
        { n: 1, share: 1 },
        { n: 2, share: 2 },
      ],
    ]);
    expect([runs(open.tape, 'grow'), runs(open.tape, 'shares')]).toEqual([2, 2]);
  });

  test('18 another rule’s write to what it reads does set it off', () => {
    const open = both({
      form,
      scripts: {
        a: 'keep("double", () => { fields.b.value = (fields.a.value ?? 0) * 2; });',
        b: 'keep("more", () => { fields.c.value = (fields.b.value ?? 0) + 1; });',
        c: 'keep("most", () => { fields.d.value = (fields.c.value ?? 0) + 1; });',
      },
    });
    open.do({ set: 'a', to: 5 });
    expect(['b', 'c', 'd'].map((name) => open.value(name))).toEqual([10, 11, 12]);
  });
});

/** Rules each of which speaks of something no other one speaks of, reading what others say. */
const SPEAKING = [
  'keep("a", () => { sections.q.shown = fields.a.value !== 3; });',
  'keep("b", () => { fields.note.shown = sections.q.onScreen; });',
  'keep("c", () => { fields.note.required = fields.note.onScreen && fields.b.value !== null; });',
  'keep("d", () => { fields.c.locked = fields.note.required; });',
  'keep("e", () => { fields.d.value = (fields.c.editable ? 1 : 2) + (fields.b.value ?? 0); });',
  'keep("f", () => { fields.on.hint = fields.d.value === null ? null : `d is ${fields.d.value}`; });',
  'keep("g", () => { fields.b.problem = fields.on.hint === "d is 4" ? "four" : null; });',
  'keep("h", () => { fields.c.warning = fields.b.problem; fields.c.hint = fields.note.required ? "needed" : null; });',
];

test('shuffling rules that speak of different things changes no state at rest', () => {
  const anyStep = fc
    .tuple(
      fc.constantFrom('a', 'b', 'c', 'note', 'on'),
      fc.constantFrom<unknown>(null, 1, 2, 3, 4, 'text', true),
    )
    .map(([set, to]) => ({ set, to: to as never }));
  fc.assert(
    fc.property(
      fc.shuffledSubarray(SPEAKING, { minLength: 4 }),
      fc.infiniteStream(fc.nat()),
      fc.array(anyStep, { maxLength: 12 }),
      (chosen, keys, steps) => {
        const order = chosen
          .map((source) => [keys.next().value as number, source] as const)
          .sort((x, y) => x[0] - y[0])
          .map(([, source]) => source);
        const [one, other] = [chosen, order].map((sources) =>
          direct(
            {
              form,
              scripts: Object.fromEntries(sources.map((source, i) => [`${10 + i}-s`, source])),
            },
            false,
          ),
        );
        for (const step of [null, ...steps]) {
          if (step !== null) for (const open of [one!, other!]) open.do(step);
          expect(other!.seen.parts).toEqual(one!.seen.parts);
          expect(other!.seen.changed).toBe(one!.seen.changed);
        }
      },
    ),
    { seed: 20310502, numRuns: shareOf(300) },
  );
});
