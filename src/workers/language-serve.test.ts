/** The language worker by its messages: what a page sends and gets, and that a keystroke costs far less than a full check. */
import { expect, test } from 'vitest';
import { largeScript, largeSurface, others, typedOnce } from '../../tests/support/large-form';
import { demo } from '../../tests/support/demo-language';
import { serveCompiler } from './compiler-serve';
import { serveLanguage } from './language-serve';

function worker() {
  const answers = new Map<number, unknown>();
  const handle = serveLanguage(({ id, answer }) => answers.set(id, answer));
  let ids = 0;
  return async (request: object) => {
    const id = ++ids;
    await handle({ ...request, id });
    return answers.get(id);
  };
}

const surfaceOf = (form: string) => {
  const { tables, services, roles, forms } = demo;
  return { form: forms.find((one) => one.form.name === form)!.form, tables, services, roles };
};

test('checks, completes and explains what it was given last', async () => {
  const ask = worker();
  expect(await ask({ do: 'surround', surface: surfaceOf('vessel') })).toBeNull();
  const source = { name: 'x.ts', text: 'on.load(() => log(fields.draugt.value));' };
  expect(await ask({ do: 'diagnose', source })).toMatchObject([
    { line: 1, says: 'There is no field "draugt". Did you mean draught?' },
  ]);
  expect(await ask({ do: 'explain', name: 'x.ts', position: 15 })).toMatchObject({
    signature: 'function log(...values: unknown[]): void',
    leads: false,
  });
  const better = { name: 'x.ts', text: 'on.load(() => log(fields.draught.value));' };
  expect(await ask({ do: 'diagnose', source: better })).toEqual([]);
  expect(
    await ask({ do: 'define', name: 'x.ts', position: better.text.indexOf('draught') }),
  ).toEqual({ is: 'part', part: 'draught' });
  expect(
    await ask({ do: 'complete', source: better, position: better.text.indexOf('draught') }),
  ).toContainEqual(expect.objectContaining({ label: 'draught' }));
  expect(await ask({ do: 'format', source: better, position: 0 })).toEqual({
    text: `${better.text}\n`,
    position: 0,
  });
  expect(await ask({ do: 'map' })).toMatchObject({
    behaviours: [{ name: 'x.ts' }],
    reads: [{ part: 'draught' }],
  });
  expect(await ask({ do: 'remove', name: 'x.ts' })).toBeNull();
  expect(await ask({ do: 'map' })).toMatchObject({ behaviours: [] });
  expect(await ask({ do: 'idleParts' })).toContainEqual(
    expect.objectContaining({ part: 'look_up' }),
  );
});

test('the compiler answers with what runs, or why nothing does', () => {
  const answers: unknown[] = [];
  const handle = serveCompiler((reply) => answers.push(reply));
  handle({ id: 1, do: 'compile', source: { name: 'x.ts', text: 'on.load(() => log(1));' } });
  handle({ id: 2, do: 'compile', source: { name: 'x.ts', text: 'on.load(() => ' } });
  handle({ id: 3, do: 'fly' });
  expect(answers).toMatchObject([
    { id: 1, answer: { name: 'x', failure: null } },
    { id: 2, answer: { code: null, failure: { code: 'syntax', line: 1 } } },
    { id: 3, answer: null },
  ]);
});

test('a message that is no request is answered with nothing, and the worker goes on', async () => {
  const ask = worker();
  expect(await ask({ do: 'fly' })).toBeNull();
  expect(await ask({ do: 'diagnose', source: 'x' })).toBeNull();
  expect(await ask({ do: 'rename', name: 'x.ts', position: 0, to: 'not a name' })).toBeNull();
  expect(await ask({ do: 'surround', surface: surfaceOf('vessel') })).toBeNull();
  expect(
    await ask({ do: 'diagnose', source: { name: 'x.ts', text: 'on.load(() => log(1));' } }),
  ).toEqual([]);
});

test('a keystroke in 300 lines over 200 fields is checked in less than half of what a full check takes', async () => {
  const median = (times: number[]) =>
    times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)]!;
  const timed = async (work: () => Promise<unknown>) => {
    const from = performance.now();
    await work();
    return performance.now() - from;
  };
  const full: number[] = [];
  let ask = worker();
  for (let round = 0; round < 3; round++) {
    full.push(
      await timed(async () => {
        ask = worker();
        await ask({ do: 'surround', surface: largeSurface });
        for (const source of others) await ask({ do: 'put', source });
        expect(await ask({ do: 'diagnose', source: largeScript })).toEqual([]);
      }),
    );
  }
  const keys: number[] = [];
  // Only a warm worker is spoken of.
  for (let i = 0; i < 5; i++) await ask({ do: 'diagnose', source: typedOnce(i) });
  for (let i = 5; i < 25; i++)
    keys.push(
      await timed(async () =>
        expect(await ask({ do: 'diagnose', source: typedOnce(i) })).toEqual([]),
      ),
    );
  expect(largeScript.text.split('\n').length).toBeGreaterThanOrEqual(290);
  expect(median(keys) / median(full)).toBeLessThan(0.5);
});
