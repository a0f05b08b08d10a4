import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, rows, text } from '../../../tests/support/forms';
import { bootMachine, inMachine } from '../../../tests/support/hosts';
import { linesOf } from './lines';
import { standingWords, Tape } from './tape';
import { why } from './why';

beforeAll(bootMachine);

const form = formWith([number('a'), number('b'), number('c'), text('note')]);
const scripts = {
  '10-double':
    'keep("double", () => {\n  fields.b.value = (fields.a.value ?? 0) * 2;\n});\nkeep("hint", () => {\n  if (fields.b.value! > 5) fields.note.hint = "Long";\n});',
  '20-copy': 'on.change(fields.b, ({ value }) => {\n  fields.c.value = value;\n});',
};

function tapeOf(steps: { set: string; to: number | string }[]): Tape {
  const use = inMachine({ form, scripts });
  for (const step of steps) use.do(step);
  return new Tape(use.tape);
}

describe('why', () => {
  test('leads from a rule over what it read back to the person', () => {
    const chain = why(tapeOf([{ set: 'a', to: 4 }]), 'note', 'hint');
    expect(chain.map((because) => because.type)).toEqual(['said', 'said', 'entered']);
    expect(
      chain.map((because) =>
        'effect' in because ? [because.effect.part, because.effect.line] : null,
      ),
    ).toEqual([
      ['note', 5],
      ['b', 2],
      ['a', null],
    ]);
  });

  test('leads from a handler over its event', () => {
    expect(why(tapeOf([{ set: 'a', to: 4 }]), 'c', 'value').map((because) => because.type)).toEqual(
      ['said', 'event', 'said', 'entered'],
    );
  });

  test('says that a rule fell silent', () => {
    expect(
      why(
        tapeOf([
          { set: 'a', to: 4 },
          { set: 'a', to: 1 },
        ]),
        'note',
        'hint',
      )[0],
    ).toMatchObject({ type: 'withdrawn', effect: { line: null, to: null } });
  });

  test('leads from after a wait over the answer and what asked for it to the person', () => {
    const waits = {
      a: 'on.change(fields.a, async () => {\n  await after(20);\n  fields.b.value = 1;\n});',
    };
    const use = inMachine({ form, scripts: waits });
    use.do({ set: 'a', to: 4 });
    const { tape } = use.do({ wait: 20 });
    expect(why(new Tape(use.tape), 'b', 'value').map((because) => because.type)).toEqual([
      'said',
      'answered',
      'event',
      'entered',
    ]);
    // The tape of the step in which time passed shows what went on then.
    expect(tape.find((entry) => entry.type === 'answered')!.cause).toBe(
      tape.find((entry) => entry.type === 'step')!.n,
    );
  });

  test('tells a cell by its row, wherever the row has gone since', () => {
    const rowsForm = formWith([rows('list', [number('n'), text('t')])]);
    const use = inMachine({
      form: rowsForm,
      scripts: {
        a: 'keep.each(fields.list, "hint", (row) => {\n  row.fields.t.hint = String(row.fields.n.value);\n});',
      },
      record: { id: '1', values: { list: [{ n: 1 }, { n: 2 }] } },
    });
    use.do({ moveRow: 'list[0]', to: 1 });
    use.do({ set: 'list[1].n', to: 7 });
    const chain = why(new Tape(use.tape), 'list#1.t', 'hint');
    expect(
      chain.map((because) =>
        'effect' in because ? [because.effect.part, because.effect.to] : because.type,
      ),
    ).toEqual([
      ['list#1.t', '7'],
      ['list#1.n', 7],
    ]);
  });

  test('has nothing to say of what nobody touched', () => {
    expect(why(tapeOf([]), 'note', 'required')).toEqual([]);
  });
});

test('the margin holds what scripts say now: a person who enters a value ends a word, a silent rule too', () => {
  const words = (steps: { set: string; to: number }[]) =>
    Object.fromEntries(
      [...standingWords(tapeOf(steps))].map(([part, said]) => [
        part,
        said.map(({ aspect, line }) => [aspect, line]),
      ]),
    );
  expect(words([{ set: 'a', to: 4 }])).toEqual({
    b: [['value', 2]],
    c: [['value', 2]],
    note: [['hint', 5]],
  });
  expect(
    words([
      { set: 'a', to: 4 },
      { set: 'b', to: 1 },
    ]),
  ).toEqual({ c: [['value', 2]] });
});

test('lines carry how often they ran and the last value seen there', () => {
  const use = inMachine({ form, scripts });
  const { tape } = use.do({ set: 'a', to: 4 });
  expect(linesOf(tape, '10-double')).toEqual([
    { line: 2, hits: 1, value: 8, failed: null },
    { line: 5, hits: 2, value: 'Long', failed: null },
  ]);
});
