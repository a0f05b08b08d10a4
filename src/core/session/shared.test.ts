/** Shared modules and behaviours for several forms, as a session runs them: in this engine and in the machine alike. */
import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { both, bootMachine } from '../../../tests/support/hosts';
import { linesOf } from '../tape/lines';

beforeAll(bootMachine);

const form = formWith([number('a'), number('b'), text('note')]);

const DOUBLE = `export const FACTOR = 2;
export function double(from: Field<number>, to: Field<number>): void {
  to.value = from.value === null ? null : from.value * FACTOR;
}
`;
const USES =
  'import { double } from "shared/numbers";\nkeep("double", () => {\n  double(fields.a, fields.b);\n});\n';

const using = (module: string, behaviour = USES) =>
  both({ form, scripts: { 'shared/numbers': module, '10-double': behaviour } });

describe('a shared module', () => {
  test('does what a behaviour calls it for, and the effect stands at its line', () => {
    const use = using(DOUBLE);
    const { tape } = use.do({ set: 'a', to: 4 });
    expect(use.value('b')).toBe(8);
    expect(
      tape.find((entry) => entry.type === 'effect' && entry.part === 'b' && entry.by === 'script'),
    ).toMatchObject({ line: 'shared/numbers:3', to: 8 });
    const inModule = linesOf(tape, 'shared/numbers');
    expect(inModule.map(({ line, hits }) => [line, hits])).toEqual([[3, 1]]);
    expect(inModule[0]!.value).toBe(8);
    expect(linesOf(tape, '10-double').map(({ line }) => line)).toEqual([3]);
  });

  test('that fails names its own line, and the behaviour that called it', () => {
    const use = using('export function double() {\n  throw new Error("no");\n}\n');
    expect(use.opened.errors).toMatchObject([
      { behaviour: '10-double', line: 'shared/numbers:2', code: 'thrown', says: 'threw: no' },
    ]);
  });

  test.each([
    [
      'does not compile',
      'export function double( {',
      /needs shared\/numbers, which failed in line 1: it does not parse/,
    ],
    [
      'fails at its top level',
      'export const double = 1;\nnull!.x;',
      /needs shared\/numbers, which failed in line 2/,
    ],
    [
      'throws there',
      'export const double = 1;\nthrow new Error("not today");',
      /failed in line 2: it threw: not today/,
    ],
    ['never ends', 'export const double = 1;\nwhile (true);', /failed in line 2: it ran too long/],
  ])(
    'that %s takes the behaviours with it that import from it, and no others',
    (_, module, says) => {
      const use = both({
        form,
        scripts: {
          'shared/numbers': module,
          '10-double': USES,
          '20-other': 'keep("note", () => { fields.note.value = "there"; });',
        },
      });
      expect(use.opened.failing).toMatchObject([
        { behaviour: '10-double', code: 'module', says: expect.stringMatching(says) as string },
      ]);
      expect(use.value('note')).toBe('there');
    },
  );

  test('that is not there is said', () => {
    const use = both({ form, scripts: { '10-double': USES } });
    expect(use.opened.failing).toMatchObject([
      {
        behaviour: '10-double',
        says: 'imports from "shared/numbers", which the workspace does not have.',
      },
    ]);
  });

  test('costs its caller fuel', () => {
    const use = using('export function double() {\n  while (true);\n}\n');
    expect(use.opened.errors).toMatchObject([
      { behaviour: '10-double', code: 'fuel', line: 'shared/numbers:2' },
    ]);
  });

  test('imports from another, under another name, and may wait', () => {
    const use = both({
      form,
      scripts: {
        'shared/waits':
          'export async function later(ms: number) {\n  await after(ms);\n  log("waited", ms);\n}\n',
        'shared/numbers':
          'import { later as wait } from "shared/waits";\nexport async function slowly(field: Field<number>) {\n  await wait(50);\n  field.value = 7;\n}\n',
        '10-double':
          'import { slowly, type Unused } from "shared/numbers";\non.change(fields.a, async () => {\n  await slowly(fields.b);\n  fields.note.value = "done";\n});\n',
      },
    });
    use.do({ set: 'a', to: 1 });
    const { log } = use.do({ wait: 50 });
    expect([use.value('b'), use.value('note')]).toEqual([7, 'done']);
    expect(log).toMatchObject([
      { behaviour: '10-double', line: 'shared/waits:3', values: ['waited', 50] },
    ]);
  });

  test('has no form of its own', () => {
    const use = using('export function double() {\n  fields.b.value = 1;\n}\n');
    expect(use.opened.errors).toMatchObject([{ code: 'name', line: 'shared/numbers:2' }]);
  });

  test('cannot be changed by who imports it, and gives nothing that it does not export', () => {
    const use = both({
      form,
      scripts: {
        'shared/numbers':
          'export const rates = Object.freeze({ low: 1 });\nconst hidden = 2;\nexport enum Side { Port = "port" }\nexport const [x, { y }] = [1, { y: 2 }];\nexport class Box { constructor(readonly held: number) {} }\nexport type T = string;\nexport interface I { a: 1 }\n',
        '10-a':
          'import { rates, hidden, constructor, Side, x, y, Box } from "shared/numbers";\non.load(() => { log(rates.low, hidden === undefined, constructor === undefined, Side.Port, x, y, new Box(3).held); });',
      },
    });
    expect(use.opened.log[0]!.values).toEqual([1, true, true, 'port', 1, 2, 3]);
  });

  test('is nothing to a form that does not import it', () => {
    const use = both({
      form,
      scripts: {
        'shared/broken': 'export const a = ;',
        '10-a': 'on.load(() => { fields.a.value = 1; });',
      },
    });
    expect([use.opened.failing, use.value('a')]).toEqual([[], 1]);
  });
});

test('a behaviour for several forms runs at its place in the order', () => {
  const says = (name: string) =>
    `on.load(() => { fields.note.value = (fields.note.value ?? "") + "${name}"; });`;
  const use = both({
    form,
    scripts: {
      '10-a': says('a'),
      'behaviours/20-b': `/** B: second.\n * @forms form */\n${says('b')}`,
      '30-c': says('c'),
    },
  });
  expect(use.value('note')).toBe('abc');
});
