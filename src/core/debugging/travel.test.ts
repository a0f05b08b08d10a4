import { describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { groundOf } from '../../../tests/support/hosts';
import type { TimedStep } from '../session/step';
import { standingClaims, Tape } from '../tape/tape';
import { alongTape, entriesUntil, nearest, placeAt, stepOf, stopsOf, withinRun } from './travel';
import { variablesAt, notesAt } from './notes';

const form = formWith([number('length'), text('note')]);
const script = [
  'function twice(n) {',
  '  const made = n * 2;',
  '  return made;',
  '}',
  'on.change(fields.length, () => {',
  '  const size = fields.length.value ?? 0;',
  '  const double = twice(size);',
  '  if (double > 5) {',
  '    fields.note.hint = `${double}`;',
  '  }',
  '});',
].join('\n');

const setting = { form, scripts: { '10-x': script } };
const steps: TimedStep[] = [{ set: 'length', to: 4 }];

async function theRun() {
  const ground = groundOf(setting, steps);
  const entry = ground.tape.entries.find(({ type }) => type === 'run')!;
  const [run] = await ground.inspect([entry.n]);
  return { ground, run: run!, entry };
}

/** The line of a detail. */
const lineOf = (run: Awaited<ReturnType<typeof theRun>>, detail: number): number => {
  const place = placeAt(run.run, detail)!;
  return run.ground.sites.get(place.script)![place.site]!.line;
};

describe('within a run', () => {
  test('statements are stops, deeper in what is called', async () => {
    const at = await theRun();
    expect(stopsOf(at.run).map(({ detail, depth }) => [lineOf(at, detail), depth])).toEqual([
      [6, 0],
      [7, 0],
      [2, 1],
      [3, 1],
      [8, 0],
      [9, 0],
    ]);
  });

  test('next and last go over a call, into and out of it', async () => {
    const at = await theRun();
    const [first, call] = stopsOf(at.run);
    const go = (from: number, way: 'next' | 'last' | 'into' | 'out') => {
      const to = withinRun(at.run, from, way);
      return to === null ? null : lineOf(at, to.detail!);
    };
    expect(go(first!.detail, 'next')).toBe(7);
    expect(go(call!.detail, 'next')).toBe(8);
    expect(go(call!.detail, 'into')).toBe(2);
    expect(go(stopsOf(at.run)[2]!.detail, 'out')).toBe(8);
    expect(go(stopsOf(at.run)[4]!.detail, 'last')).toBe(7);
    // Out of the run itself, and beyond its ends, leads out of it.
    expect(go(first!.detail, 'last')).toBeNull();
    expect(go(first!.detail, 'out')).toBeNull();
    expect(go(stopsOf(at.run).at(-1)!.detail, 'next')).toBeNull();
  });

  test('a stop shows the variables in sight, and the lines what they came to', async () => {
    const { run, ground } = await theRun();
    const inCondition = stopsOf(run)[4]!.detail;
    expect(variablesAt(run, inCondition, ground.sites)).toEqual([
      { name: 'size', value: 4 },
      { name: 'double', value: 8 },
    ]);
    const notes = notesAt(run, run.details.length - 1, ground.sites, '10-x', '10-x');
    expect(notes.find(({ line }) => line === 8)).toMatchObject({ hits: 1, value: '8 > 5: yes' });
    expect(notes.find(({ line }) => line === 2)).toMatchObject({ hits: 1 });
  });
});

describe('along the tape', () => {
  test('goes from entry to entry as listed, into what it caused and out to what caused it', async () => {
    const { ground, entry } = await theRun();
    const { tape } = ground;
    const shown = tape.entries.map(({ n }) => n);
    expect(alongTape(tape, shown, entry.n, 'next')!.entry).toBe(shown[shown.indexOf(entry.n) + 1]);
    expect(alongTape(tape, shown, shown[0]!, 'last')).toBeNull();
    const inner = alongTape(tape, shown, entry.n, 'into')!;
    expect(tape.entry(inner.entry)).toMatchObject({ type: 'effect', part: 'note' });
    expect(alongTape(tape, shown, inner.entry, 'out')).toEqual({ entry: entry.n, detail: null });
  });

  test('finds the nearest effect on a part, run of a behaviour and error', async () => {
    const { ground, entry } = await theRun();
    const { tape } = ground;
    const effect = nearest(tape, -1, { is: 'effect', part: 'note' }, true)!;
    expect(tape.entry(effect.entry)).toMatchObject({ part: 'note', aspect: 'hint' });
    expect(nearest(tape, effect.entry, { is: 'run', behaviour: '10-x' }, false)!.entry).toBe(
      entry.n,
    );
    expect(nearest(tape, -1, { is: 'error' }, true)).toBeNull();
  });

  test('knows the step of an entry', async () => {
    const tapes = [[{ n: 0 }, { n: 1 }], [{ n: 2 }], [], [{ n: 3 }]] as never;
    expect([0, 1, 2, 3, 9].map((entry) => stepOf(tapes, entry))).toEqual([0, 0, 1, 3, 3]);
  });
});

test('in the middle of a run nothing stands yet that it says in the end', async () => {
  const { ground, entry } = await theRun();
  const said = (detail: number | null, n: number) =>
    standingClaims(new Tape(entriesUntil(ground.tape.entries, { entry: n, detail }))).get('note');
  const effect = ground.tape.entries.find(({ type }) => type === 'effect')!;
  expect(said(null, ground.tape.entries.at(-1)!.n)).toMatchObject([{ aspect: 'hint', to: '8' }]);
  expect(said(0, entry.n)).toBeUndefined();
  expect(entriesUntil(ground.tape.entries, { entry: effect.n, detail: null }).at(-1)).toBe(effect);
});
