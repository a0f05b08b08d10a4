import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import {
  bootMachine,
  detailedMaterial,
  inMachine,
  inspected,
  type Setting,
} from '../../../tests/support/hosts';
import { expressionFault, type Watch } from '../language/watches';
import { ASKED_IN_ALL, DETAILS_PER_RUN } from '../limits';
import type { TimedStep } from '../session/step';

beforeAll(bootMachine);

const form = formWith([number('length'), text('note')]);

const script = [
  'on.change(fields.length, () => {',
  '  const size = fields.length.value ?? 0;',
  '  for (let i = 0; i < size; i++) {',
  '    log(i);',
  '  }',
  '  if (size > 100) {',
  '    fields.note.hint = "long";',
  '  }',
  '});',
].join('\n');

const settingOf = (text: string = script): Setting => ({ form, scripts: { '10-x': text } });
const steps: TimedStep[] = [{ set: 'length', to: 3 }];

function asked(watches: Watch[], done = steps, setting = settingOf()) {
  const { material } = detailedMaterial(setting, { '10-x': watches });
  return inspected(setting, done, { runs: 'all', asks: true }, material);
}

describe('what is asked on the way', () => {
  test('has a value each time its line is reached, with the names in sight there', () => {
    const { asked: found } = asked([
      { id: 1, line: 4, expression: 'i * size' },
      { id: 2, line: 6, expression: 'fields.length.value' },
    ]);
    expect(found.filter(({ id }) => id === 1).map(({ value }) => value)).toEqual([0, 3, 6]);
    expect(found.filter(({ id }) => id === 2)).toMatchObject([{ value: 3, failed: null }]);
  });

  test('changes nothing of the session, whatever it is', () => {
    const { answers } = inspected(settingOf(), steps, { runs: 'all', answers: true });
    const nasty = [
      'fields.note.value = "mine"',
      'fields.note.hint = "mine"',
      'log("mine")',
      'form.message("mine")',
      'after(10)',
      'missing.name',
      '(() => { throw new Error("mine"); })()',
      '(() => { for (;;) {} })()',
      'size = 9',
    ];
    for (const expression of nasty) {
      if (expressionFault(expression) !== null) continue;
      const setting = settingOf();
      const { material } = detailedMaterial(setting, { '10-x': [{ id: 1, line: 6, expression }] });
      const found = inspected(setting, steps, { runs: 'all', asks: true, answers: true }, material);
      expect(found.answers, expression).toEqual(answers);
      expect(found.asked[0]!.failed, expression).not.toBeNull();
    }
  });

  test('that assigns or is no expression is refused before it is put in', () => {
    for (const expression of ['size = 9', 'a++', 'delete x.y', '', 'if (x) y', '1;2', 'a\nb', '(1'])
      expect(expressionFault(expression), expression).not.toBeNull();
    for (const expression of ['size > 4', 'fields.length.value', '[1, 2].map((n) => n + 1)'])
      expect(expressionFault(expression), expression).toBeNull();
  });

  test('is kept so often and no oftener', () => {
    const { asked: found, cut } = asked(
      Array.from({ length: 20 }, (_, id) => ({ id, line: 4, expression: 'i' })),
      [{ set: 'length', to: ASKED_IN_ALL / 10 }],
    );
    expect(found).toHaveLength(ASKED_IN_ALL);
    expect(cut).toBe(true);
  });
});

describe('a run in detail', () => {
  test('is cut where there is more than is kept, and the run itself is not', () => {
    const { runs, answers } = inspected(settingOf(), [{ set: 'length', to: DETAILS_PER_RUN / 4 }], {
      runs: 'all',
    });
    expect(runs.at(-1)).toMatchObject({ cut: true });
    expect(runs.at(-1)!.details).toHaveLength(DETAILS_PER_RUN);
    expect(answers.at(-1)!.errors).toEqual([]);
  });

  test('is told for the runs that are wanted alone', () => {
    const { answers } = inspected(settingOf(), steps, { runs: [] });
    const run = answers.flatMap(({ tape }) => tape).find(({ type }) => type === 'run')!;
    expect(inspected(settingOf(), steps, { runs: [run.n] }).runs).toMatchObject([{ entry: run.n }]);
    expect(inspected(settingOf(), steps, { runs: [99_999] }).runs).toEqual([]);
  });

  test('comes to the other side of a condition that is turned round', () => {
    const { sites } = detailedMaterial(settingOf());
    const site = sites
      .get('10-x')!
      .findIndex(({ kind, text }) => kind === 'condition' && text === 'size > 100');
    const { runs } = inspected(settingOf(), steps, {
      runs: 'all',
      turned: [{ script: '10-x', site }],
    });
    expect(runs.flatMap(({ details }) => details)).toContainEqual(
      expect.objectContaining({ is: 'said', part: 'note', value: 'long' }),
    );
  });

  test('leaves the next session as if nobody had looked', () => {
    const before = inMachine(settingOf());
    before.do(steps[0]!);
    asked([{ id: 1, line: 6, expression: 'log("mine")' }]);
    const after = inMachine(settingOf());
    after.do(steps[0]!);
    expect(after.tape).toEqual(before.tape);
  });
});
