import { describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { direct, type Setting } from '../../../tests/support/hosts';
import { RUNS_PER_STEP } from '../limits';
import type { TimedStep } from '../session/step';
import { Tape } from '../tape/tape';
import { entryInWords, namesFor } from '../tape/words';
import { callsOn } from './calls';
import { costsOf } from './cost';
import { ALL, listed, type Filter } from './filter';
import { inversions, orders } from './orders';

const form = formWith([number('length'), number('draught'), text('note')]);

function tapesOf(script: string, steps: TimedStep[], more: Partial<Setting> = {}) {
  const use = direct({ form, scripts: { '10-x': script }, ...more });
  return [use.opened.tape, ...steps.map((step) => use.do(step).tape)];
}

const names = namesFor(form, [], []);

describe('what is listed', () => {
  const script = [
    'keep("quiet", () => {',
    '  if ((fields.draught.value ?? 0) > 99) fields.note.warning = "deep";',
    '});',
    'on.change(fields.length, () => {',
    '  fields.note.hint = `${fields.length.value}`;',
    '  log("seen");',
    '});',
  ].join('\n');
  const tape = new Tape(
    tapesOf(script, [
      { set: 'length', to: 4 },
      { set: 'draught', to: 2 },
    ]).flat(),
  );
  const types = (filter: Partial<Filter>) =>
    listed(tape, { ...ALL, ...filter }, (entry) => entryInWords(entry, names, 'Mira')).map(
      ({ entry }) => entry.type,
    );

  test('is everything but runs that changed nothing, whose number is told', () => {
    const all = listed(tape, ALL, () => '');
    expect(all.some(({ quiet }) => quiet > 0)).toBe(true);
    expect(all.filter(({ entry }) => entry.type === 'run')).toHaveLength(1);
    expect(types({ quiet: true }).filter((type) => type === 'run').length).toBeGreaterThan(1);
  });

  test('of a part is what touched it, with what led there', () => {
    const found = listed(tape, { ...ALL, part: 'note' }, () => '');
    expect(found.map(({ entry }) => entry.type)).toContain('effect');
    expect(found.every(({ entry }) => entry.type !== 'effect' || entry.part !== 'draught')).toBe(
      true,
    );
    // The step that led there is kept above it.
    expect(found[0]!.entry.type).toBe('step');
    expect(found.at(-1)!.depth).toBeGreaterThan(found[0]!.depth);
  });

  test('is narrowed by behaviour, by sort and by words, of whatever case', () => {
    expect(types({ behaviour: '10-x' })).toContain('log');
    expect(types({ sorts: ['log'] })).toContain('log');
    expect(types({ sorts: ['log'] }).filter((type) => type === 'effect')).toHaveLength(1);
    expect(types({ words: 'SEEN' })).toContain('log');
    expect(types({ words: 'nothing of the kind' })).toEqual([]);
  });

  test('is as deep as the tape is, without a limit of its own', () => {
    const deep = Array.from({ length: 20_000 }, (_, n) => ({
      n,
      cause: n === 0 ? null : n - 1,
      type: 'log',
      behaviour: '10-x',
      line: 1,
      values: [n],
    }));
    const found = listed(new Tape(deep as never), ALL, () => '');
    expect(found).toHaveLength(20_000);
    expect(found.at(-1)!.depth).toBe(19_999);
  });
});

describe('cost', () => {
  test('is told by behaviour, by handler or rule and by step, the heaviest first', () => {
    const tapes = tapesOf(
      [
        'keep("light", () => {\n  fields.note.hint = `${fields.length.value}`;\n});',
        'on.change(fields.length, () => {\n  for (let i = 0; i < 500; i++) log.name;\n});',
      ].join('\n'),
      [{ set: 'length', to: 1 }],
    );
    const { behaviours, ties, steps } = costsOf(tapes);
    expect(behaviours).toHaveLength(1);
    expect(ties.map(({ title }) => title)).toEqual(['change of length', 'light']);
    expect(ties[0]!.fuel).toBeGreaterThan(ties[1]!.fuel);
    expect(ties[1]!.runs).toBe(2);
    expect(steps).toHaveLength(2);
    expect(steps[1]).toBe(ties[0]!.fuel + ties[1]!.fuel - steps[0]!);
    expect(behaviours[0]!.near).toBe(false);
  });

  test('flags what runs often in one step', () => {
    const run = (n: number) => ({
      n,
      type: 'run',
      sort: 'rule',
      behaviour: 'a',
      title: 'r',
      line: 1,
      fuel: 1,
    });
    const often = Array.from({ length: RUNS_PER_STEP / 2 }, (_, n) => run(n));
    expect(costsOf([often] as never).ties[0]!.near).toBe(true);
    expect(costsOf([often.slice(1)] as never).ties[0]!.near).toBe(false);
  });
});

describe('calls', () => {
  test('are told from when to when they were open, and what ended them', () => {
    const script = [
      'on.change(fields.length, async () => {',
      '  await after(20);',
      '  fields.note.hint = "done";',
      '});',
    ].join('\n');
    const tapes = tapesOf(script, [
      { set: 'length', to: 1, at: 0 },
      { set: 'length', to: 2, at: 5 },
      { wait: 30, at: 5 },
    ]);
    const spans = callsOn(new Tape(tapes.flat()));
    expect(spans.map(({ how }) => how)).toEqual(['superseded', 'answered']);
    const [first, second] = spans;
    expect(first!.to! - first!.from).toBe(5);
    expect(second!.to! - second!.from).toBe(20);
  });
});

describe('orders of answers', () => {
  test('are all up to six, then as many drawn, none twice and the usual one first', () => {
    expect(orders(2)).toEqual([
      [0, 1],
      [1, 0],
    ]);
    const six = orders(6);
    expect(six).toHaveLength(720);
    expect(new Set(six.map(String)).size).toBe(720);
    const more = orders(8);
    expect(more[0]).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(new Set(more.map(String)).size).toBe(more.length);
    expect(orders(8)).toEqual(more);
  });

  test('are as far from the usual one as they turn round', () => {
    expect(inversions([0, 1, 2])).toBe(0);
    expect(inversions([2, 1, 0])).toBe(3);
  });
});
