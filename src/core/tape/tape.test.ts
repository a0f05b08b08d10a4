import { beforeAll, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { bootMachine, inMachine } from '../../../tests/support/hosts';
import { linesOf } from './lines';
import { standingClaims, Tape } from './tape';

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

test('a step in which time passed shows what went on then', () => {
  const waits = {
    a: 'on.change(fields.a, async () => {\n  await after(20);\n  fields.b.value = 1;\n});',
  };
  const use = inMachine({ form, scripts: waits });
  use.do({ set: 'a', to: 4 });
  const { tape } = use.do({ wait: 20 });
  expect(tape.find((entry) => entry.type === 'answered')!.cause).toBe(
    tape.find((entry) => entry.type === 'step')!.n,
  );
});

test('the margin holds what scripts say now: a person who enters a value ends a word, a silent rule too', () => {
  const words = (steps: { set: string; to: number }[]) =>
    Object.fromEntries(
      [...standingClaims(tapeOf(steps))].map(([part, said]) => [
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
