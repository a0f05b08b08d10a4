/**
 * Seeded random behaviours that decide something from what people enter: nested conditions, early returns, helpers,
 * loops, `switch`, values handed on from rule to rule and by handlers. Made to be experimented with: each input has few
 * values, so that every one of them can be tried.
 */
import fc from 'fast-check';
import type { Value } from '../../src/core/form/value';
import type { TimedStep } from '../../src/core/session/step';
import { choice, formWith, number, text, yesNo } from './forms';

export const INPUTS: Readonly<Record<string, readonly Value[]>> = {
  kind: ['tug', 'ferry', 'barge', null],
  quay: ['north', 'south', null],
  size: [1, 5, 9, null],
  crew: [0, 3, 12],
  paid: [true, false],
  late: [true, false],
};

export const form = formWith([
  choice('kind', ['tug', 'ferry', 'barge']),
  choice('quay', ['north', 'south']),
  number('size'),
  number('crew'),
  yesNo('paid'),
  yesNo('late'),
  number('middle'),
  text('one'),
  text('two'),
]);

const CONDITIONS = [
  'fields.kind.value === "tug"',
  'fields.kind.value !== "ferry"',
  '["tug", "barge"].includes(fields.kind.value ?? "")',
  'fields.quay.value === "north"',
  '(fields.size.value ?? 0) > 4',
  '(fields.crew.value ?? 0) <= 3',
  'fields.paid.value === true',
  'fields.late.value === true',
  'isLarge(fields.size.value)',
  '[fields.size.value, fields.crew.value].some((n) => (n ?? 0) > 8)',
  '(fields.middle.value ?? 0) > 10',
];
const NUMBERS = [
  '(fields.size.value ?? 0) * 2',
  '(fields.crew.value ?? 0) + 1',
  'sumOf([fields.size.value, 2])',
  'fields.paid.value ? 20 : 4',
  '7',
];

const condition = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(...CONDITIONS) },
  {
    weight: 2,
    arbitrary: fc
      .tuple(
        fc.constantFrom(...CONDITIONS),
        fc.constantFrom('&&', '||'),
        fc.constantFrom(...CONDITIONS),
      )
      .map(([a, op, b]) => `${a} ${op} ${b}`),
  },
  { weight: 1, arbitrary: fc.constantFrom(...CONDITIONS).map((a) => `!(${a})`) },
);

const says = (target: string) =>
  fc.oneof(
    condition.map((c) => `fields.${target}.shown = ${c};`),
    condition.map((c) => `fields.${target}.required = ${c};`),
    condition.map((c) => `fields.${target}.hint = ${c} ? "yes" : null;`),
    fc.constantFrom(`fields.${target}.shown = false;`, `fields.${target}.required = true;`),
  );

interface Body {
  lines: string[];
}

const body = (target: string): fc.Arbitrary<Body> =>
  fc
    .array(
      fc.oneof(
        { weight: 3, arbitrary: says(target).map((line) => [line]) },
        {
          weight: 3,
          arbitrary: fc
            .tuple(condition, says(target), fc.option(says(target), { nil: null }))
            .map(([c, yes, no]) => [
              `if (${c}) {`,
              `  ${yes}`,
              ...(no === null ? ['}'] : ['} else {', `  ${no}`, '}']),
            ]),
        },
        { weight: 2, arbitrary: condition.map((c) => [`if (${c}) return;`]) },
        {
          weight: 1,
          arbitrary: fc
            .tuple(condition, says(target))
            .map(([c, say]) => [`const known = ${c};`, `if (known) ${say}`]),
        },
        {
          weight: 1,
          arbitrary: says(target).map((say) => [
            'switch (fields.kind.value) {',
            '  case "tug":',
            `    ${say}`,
            '    break;',
            '  default:',
            `    fields.${target}.hint = "other";`,
            '}',
          ]),
        },
        {
          weight: 1,
          arbitrary: fc
            .constantFrom(...NUMBERS)
            .map((n) => [
              'let sum = 0;',
              `for (const one of [${n}, 1]) sum += one;`,
              `fields.${target}.warning = sum > 9 ? \`\${sum}\` : null;`,
            ]),
        },
      ),
      { minLength: 1, maxLength: 4 },
    )
    // Names are declared once.
    .map((parts) => ({
      lines: parts.flatMap((lines, i) =>
        lines.map((line) => line.replace(/\b(known|sum)\b/g, `$1${i}`)),
      ),
    }));

const HELPERS = [
  'function isLarge(n: number | null) {',
  '  if (n === null) return false;',
  '  return n > 4;',
  '}',
  'function sumOf(all: (number | null)[]) {',
  '  let sum = 0;',
  '  for (const one of all) sum += one ?? 0;',
  '  return sum;',
  '}',
];

const indented = ({ lines }: Body) => lines.map((line) => `  ${line}`);

const script: fc.Arbitrary<string> = fc
  .tuple(
    body('one'),
    body('two'),
    fc.constantFrom(...NUMBERS),
    fc.constantFrom('kind', 'size', 'paid'),
    fc.boolean(),
  )
  .map(([one, two, number, event, handles]) =>
    [
      ...HELPERS,
      'keep("middle", () => {',
      `  fields.middle.value = ${number};`,
      '});',
      'keep("one", () => {',
      ...indented(one),
      '});',
      ...(handles
        ? [`on.change(fields.${event}, () => {`, ...indented(two), '});']
        : ['keep("two", () => {', ...indented(two), '});']),
    ].join('\n'),
  );

export const entering: fc.Arbitrary<TimedStep> = fc
  .constantFrom(...Object.keys(INPUTS))
  .chain((set) => fc.constantFrom(...INPUTS[set]!).map((to) => ({ set, to })));

export const anySession = fc.record({
  script,
  steps: fc.array(entering, { minLength: 2, maxLength: 8 }),
});
