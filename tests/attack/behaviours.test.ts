/**
 * Hostile behaviours in the machine as the server, the bench and the command line run it: whatever one does, the step is
 * answered, the other behaviours go on, and what is saved is what the session says.
 */
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { compile } from '../../src/core/language/compile';
import { engineInThread } from '../../src/workers/engine-in-thread';
import { formWith, number, text } from '../support/forms';
import { openingOf } from '../support/hosts';
import { STATEMENTS } from './hostile-behaviours';
import { percentile, report, someOf, thorough } from './support';

const form = formWith([number('a'), number('b'), text('note'), number('c')]);
const opening = openingOf({ form });
const PLACES = {
  'in a handler': (code: string) => `on.change(fields.a, async () => { ${code} });`,
  'at the top level': (code: string) => `{ ${code.replace(/\bawait /g, 'void ')} }`,
  'in a rule': (code: string) =>
    `keep("hostile", () => { fields.a.value; ${code.replace(/\bawait /g, 'void ')} });`,
} as const;

const cases = someOf(
  STATEMENTS.flatMap(({ sort, code }) =>
    Object.keys(PLACES).map((place) => ({ sort, code, place: place as keyof typeof PLACES })),
  ),
  17,
);
const times: number[] = [];
let slowest = { time: 0, code: '' };
afterAll(() =>
  report(
    'Hostile behaviours',
    cases.length,
    `all contained: the step answered, the other behaviour ran, nothing else was saved; half within ${Math.round(percentile(times, 50))} ms, the slowest step took ${(Math.max(...times) / 1000).toFixed(1)} s (\`${slowest.code}\`)`,
  ),
);

const thread = join(process.cwd(), 'dist/engine.thread.mjs');

test.each(cases)('$sort, $place: $code', async ({ code, place }) => {
  const scripts = [
    compile({ name: '10-hostile.ts', text: PLACES[place](code) }, 'untraced'),
    compile(
      {
        name: '20-honest.ts',
        text: 'on.change(fields.a, ({ value }) => { fields.c.value = value; });',
      },
      'untraced',
    ),
  ];
  const engine = engineInThread(thread);
  await engine.load({
    form,
    tables: [],
    services: [],
    answering: [],
    modules: [],
    traced: false,
    scripts: [],
  });
  try {
    let began = performance.now();
    await engine.load({
      form,
      tables: [],
      services: [],
      answering: [],
      modules: [],
      traced: false,
      scripts,
    });
    await engine.play(opening, [{ set: 'note', to: 'typed' }]);
    times.push(performance.now() - began);
    began = performance.now();
    const answer = await engine.step({ set: 'a', to: 3 });
    times.push(performance.now() - began);
    if (times.at(-1)! > slowest.time) slowest = { time: times.at(-1)!, code };
    expect(answer.refused).toBeNull();
    const saved = (await engine.step({ submit: true })).submit;
    // Whatever it says itself, it can say of the form; nothing else reaches what is saved.
    expect(Object.keys(saved!.values).toSorted()).toEqual(['a', 'b', 'c', 'note']);
    expect(saved!.saved === false || saved!.id === opening.newId).toBe(true);
    for (const name of ['a', 'b', 'c'])
      expect([null, 'number']).toContain(
        saved!.values[name] === null ? null : typeof saved!.values[name],
      );
    expect(typeof (saved!.values.note ?? '')).toBe('string');
    // Its own errors may say that there are faults in it; the honest one has none.
    const failing = [...answer.errors, ...answer.failing].filter(
      ({ behaviour }) => behaviour === '20-honest',
    );
    expect(failing).toEqual([]);
    if (!/fields\.(a|c)/.test(code)) expect(saved!.values).toMatchObject({ a: 3, c: 3 });
    for (const { says, line } of [...answer.errors, ...answer.failing])
      expect([says.length <= 2100, line === null || typeof line === 'string' || line >= 1]).toEqual(
        [true, true],
      );
  } finally {
    engine.close();
  }
});

test('the list has what it says', () => {
  expect(STATEMENTS.length * Object.keys(PLACES).length).toBeGreaterThan(130);
  if (thorough) expect(cases.length).toBe(STATEMENTS.length * 3);
});
