/** What must always hold (semantics 29). */
import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, rows, text } from '../../../tests/support/forms';
import { both, bootMachine, direct } from '../../../tests/support/hosts';
import { runScenario } from '../scenario/run-scenario';

beforeAll(bootMachine);

const form = formWith([number('a'), number('b'), text('note'), rows('cargo', [number('weight')])]);
const session = (code: string, others: Record<string, string> = {}) =>
  both({ form, scripts: { z: code, ...others } });
const outcomes = (tape: readonly { type: string }[]) =>
  tape
    .filter((entry) => entry.type === 'run')
    .filter((entry) => (entry as never as { sort: string }).sort === 'invariant')
    .map((entry) => (entry as never as { outcome: string }).outcome);

describe('29 what must always hold', () => {
  test('is asked at the opening and then only where something that it read has changed', () => {
    const open = session('always("a is small", () => (fields.a.value ?? 0) < 10);');
    expect(outcomes(open.tape)).toEqual(['ended']);
    open.do({ set: 'b', to: 1 });
    expect(outcomes(open.tape)).toEqual(['ended']);
    open.do({ set: 'a', to: 3 });
    expect(outcomes(open.tape)).toEqual(['ended', 'ended']);
  });

  test('says no with title and line, until it holds again; nothing is taken back', () => {
    const open = session('\nalways("a is small", () => (fields.a.value ?? 0) < 10);');
    const broken = { title: 'a is small', behaviour: 'z', line: 2, row: null };
    expect(open.do({ set: 'a', to: 10 })).toMatchObject({ broken: [broken], errors: [] });
    expect(open.part('a').value).toBe(10);
    expect(open.do({ set: 'b', to: 1 }).broken).toEqual([broken]);
    expect(outcomes(open.tape)).toEqual(['ended', 'broken']);
    expect(open.do({ set: 'a', to: 9 }).broken).toEqual([]);
  });

  test('never sees a state that does not last, neither before rules nor between handlers', () => {
    const open = session('always("both", () => fields.a.value === fields.b.value);', {
      a: 'keep("b is a", () => { fields.b.value = fields.a.value; });',
      b: 'on.change(fields.a, () => { fields.note.value = "x"; });',
    });
    open.do({ set: 'a', to: 1 });
    open.do({ set: 'a', to: 2 });
    expect(outcomes(open.tape)).toEqual(['ended', 'ended', 'ended']);
  });

  test('is asked for each row, tells which, and forgets a row that is removed', () => {
    const open = session(
      'always.each(fields.cargo, "weighs something", (row) => row.fields.weight.value !== 0);',
    );
    open.do({ addRow: 'cargo', with: { weight: 1 } });
    const { broken } = open.do({ addRow: 'cargo', with: { weight: 0 } });
    expect(broken).toEqual([
      { title: 'weighs something', behaviour: 'z', line: 1, row: expect.stringMatching(/^cargo#/) },
    ]);
    expect(outcomes(open.tape)).toEqual(['ended', 'broken']);
    expect(open.do({ removeRow: 'cargo[1]' }).broken).toEqual([]);
  });

  test.each([
    ['a write', 'fields.b.value = 1; return true;', /writing b\.value cannot be done/],
    ['a claim', 'fields.b.shown = false; return true;', /writing b\.shown cannot be done/],
    ['a message', 'form.message("x"); return true;', /cannot be done in an invariant/],
    [
      'a message that stays',
      'form.replaceWith("x"); return true;',
      /cannot be done in an invariant/,
    ],
    ['a row', 'fields.cargo.add({}); return true;', /cannot be done in an invariant/],
    ['a wait', 'after(1); return true;', /cannot be done in an invariant|an invariant cannot/],
    ['chance', 'return Math.random() < 2;', /cannot be done in an invariant/],
    ['what it catches', 'try { fields.b.value = 1; } catch {} return true;', /cannot be done/],
    ['no answer', 'fields.b.value;', /true or false, not nothing|Is a return missing/],
    ['a number', 'return 1;', /returns true or false, not 1/],
    ['a promise', 'return Promise.resolve(true);', /an invariant cannot|cannot be done/],
  ])('%s in it is a failure of its behaviour, and changes nothing', (_, body, says) => {
    const open = session(`always("t", () => { ${body} });`);
    const { errors, failing } = { ...open.opened };
    expect(errors).toMatchObject([{ behaviour: 'z', says: expect.stringMatching(says) }]);
    expect(failing).toHaveLength(1);
    expect(open.opened.broken).toEqual([]);
    expect(open.part('b')).toMatchObject({ value: null, shown: true });
    expect(open.do({ set: 'a', to: 1 }).refused).toBeNull();
  });

  test('one made while a record is loaded ends with it; what was broken is forgotten with the record', () => {
    const open = both({
      form,
      scripts: { z: 'on.load(() => { always("empty", () => fields.a.empty); });' },
      opening: {
        record: { id: '1', values: { a: 1 } },
        records: [
          { id: '1', values: { a: 1 } },
          { id: '2', values: {} },
        ],
      },
    });
    expect(open.opened.broken).toHaveLength(1);
    expect(open.do({ next: true }).broken).toEqual([]);
    expect(open.do({ set: 'a', to: 1 }).broken).toHaveLength(1);
  });

  test('is not asked where people fill in a form', () => {
    const open = direct({
      form,
      scripts: { z: 'always("never", () => false);' },
      invariants: false,
    });
    expect(open.opened.broken).toEqual([]);
  });

  test('fails a scenario at the step after which it no longer holds, once', async () => {
    const code = 'always("a is small", () => (fields.a.value ?? 0) < 10);';
    const scenario = {
      title: 't',
      open: { as: 'p' },
      steps: [
        { set: 'b', to: 1 },
        { set: 'a', to: 10 },
        { set: 'b', to: 2 },
      ],
    };
    const result = await runScenario(
      scenario,
      form,
      { tables: [] },
      { people: [{ key: 'p', name: 'P', roles: [] }], records: [] },
      (opening, steps) => {
        const open = direct({ form, scripts: { z: code }, opening });
        return Promise.resolve([open.opened, ...steps.map((step) => open.do(step))]);
      },
    );
    expect(result.misses).toMatchObject([
      { after: 2, part: '@always', says: '“a is small” does not hold (z, line 1)' },
    ]);
  });
});
