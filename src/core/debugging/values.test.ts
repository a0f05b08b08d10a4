import { describe, expect, test } from 'vitest';
import { choice, formWith, number, rows, text } from '../../../tests/support/forms';
import { detailedMaterial, direct, inspectedHere } from '../../../tests/support/hosts';
import type { TimedStep } from '../session/step';
import { lineSince } from './changed-line';
import { differences } from './differences';
import { nearMisses } from './near-miss';
import { valuesAt } from './values';

const form = formWith([
  choice('kind', ['tug', 'ferry']),
  number('length'),
  text('note'),
  text('secret', { whenHidden: 'omit' }),
  rows('cargo', [text('name'), number('weight')]),
]);

const script = [
  'keep("note", () => {',
  '  fields.note.hint = "from a rule";',
  '  fields.secret.shown = fields.kind.value === "tug";',
  '});',
  'on.change(fields.length, () => {',
  '  fields.note.required = true;',
  '});',
].join('\n');

function valuesOf(steps: TimedStep[]) {
  const setting = {
    form,
    scripts: { '10-x': script },
    record: { id: '7', values: { length: 5, secret: 'old' } },
  };
  const { looks } = inspectedHere(
    setting,
    steps,
    { runs: [], moments: [{ entry: null, detail: null }] },
    detailedMaterial(setting).material,
  );
  return valuesAt(looks[0]!, form);
}

describe('values', () => {
  test('tell who decides each aspect, what stood below it and what changed since the opening', () => {
    const all = valuesOf([{ set: 'length', to: 9 }]);
    const of = (part: string) => all.find((one) => one.part === part)!;
    expect(of('length')).toMatchObject({ value: 9, opened: 5, sent: 9, left: null });
    expect(of('kind').opened).toBeUndefined();
    expect(of('note').said).toEqual(
      expect.arrayContaining([
        {
          aspect: 'hint',
          now: 'from a rule',
          base: null,
          by: { is: 'rule', behaviour: '10-x', title: 'note', line: 2 },
        },
        { aspect: 'required', now: true, base: false, by: { is: 'handler' } },
      ]),
    );
  });

  test('tell what would be left out of the submission, and why', () => {
    const secret = (steps: TimedStep[]) => valuesOf(steps).find(({ part }) => part === 'secret')!;
    const entered: TimedStep[] = [
      { set: 'kind', to: 'tug' },
      { set: 'secret', to: 'new' },
    ];
    expect(secret(entered)).toMatchObject({ left: null, sent: 'new' });
    expect(secret([...entered, { set: 'kind', to: 'ferry' }])).toMatchObject({
      value: 'new',
      left: 'off screen',
      sent: null,
    });
  });
});

describe('differences', () => {
  const at = (steps: TimedStep[]) => {
    const use = direct({ form, scripts: { '10-x': script } });
    for (const step of steps) use.do(step);
    return use.seen;
  };

  test('are told part by part and aspect by aspect, rows included', () => {
    const found = differences(
      at([]),
      at([
        { set: 'kind', to: 'tug' },
        { addRow: 'cargo', with: { name: 'Gravel' } },
      ]),
      form,
    );
    expect(found).toEqual(
      expect.arrayContaining([
        { part: 'kind', aspect: 'value', before: null, after: 'tug' },
        { part: 'secret', aspect: 'shown', before: false, after: true },
        expect.objectContaining({ part: 'cargo[0].name', after: 'Gravel' }),
      ]),
    );
    // What follows from being shown is not told besides.
    expect(found.filter(({ part }) => part === 'secret').map(({ aspect }) => aspect)).toEqual([
      'shown',
    ]);
  });

  test('are none between the same', () => {
    expect(
      differences(at([{ set: 'length', to: 1 }]), at([{ set: 'length', to: 1 }]), form),
    ).toEqual([]);
  });
});

describe('near misses', () => {
  const misses = (op: string, left: unknown, right: unknown, parts: string[] = []) =>
    nearMisses(
      {
        op,
        left: { text: '', value: left as never },
        right: { text: '', value: right as never },
      },
      form,
      parts,
    ).map(({ is }) => is);

  test.each([
    ['===', 'tug', 'Tug', ['kind'], ['case', 'label']],
    ['===', 'tug', 'raft', ['kind'], ['unknown key']],
    ['===', 'tug', 'ferry', ['kind'], []],
    ['===', 'own ', 'own', [], ['spaces']],
    ['===', 5, '5', [], ['kind']],
    ['===', true, 'true', [], ['kind']],
    ['===', ['a', 'b'], 'a', [], ['list']],
    ['===', null, 'a', [], ['empty']],
    ['>', null, 5, [], ['empty']],
    ['>', 4, 5, [], []],
    ['includes', ['North '], 'North', [], ['spaces']],
    ['!==', 'Own', 'own', [], ['case']],
  ] as const)('%s of %j and %j', (op, left, right, parts, expected) => {
    expect(misses(op, left, right, [...parts])).toEqual(expected);
  });
});

describe('since when a line is as it is', () => {
  const now = 'a\n  if (x) {\nb';
  test('is the oldest revision since which none lacked it', () => {
    expect(lineSince('if (x) {', [now, 'if (x) {\nc', 'if (y) {', now])).toEqual({
      at: 1,
      always: false,
    });
    expect(lineSince('if (x) {', [now, now])).toEqual({ at: 1, always: true });
  });

  test('is nothing for a line that is not saved', () => {
    expect(lineSince('if (z) {', [now])).toBeNull();
    expect(lineSince('if (x) {', [])).toBeNull();
  });
});
