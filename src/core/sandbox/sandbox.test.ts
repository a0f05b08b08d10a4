import { join } from 'node:path';
import { build } from 'esbuild';
import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { engineInThread } from '../../workers/engine-in-thread';
import { compile } from '../language/compile';
import type { Material } from '../session/session';
import type { Opening } from '../session/step';
import { LIMITS, startModule } from './quickjs';
import { Sandbox } from './sandbox';

const form = formWith([number('a'), number('b'), text('note')]);
const opening: Opening = { person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] }, record: null, launch: {}, clock: 0, seed: 1, newId: 'new' };
const material = (source: string, traced = true): Material => ({ form, tables: [], services: [], answering: [], traced, scripts: [compile({ name: '10-a.ts', text: source }, traced ? 'traced' : 'untraced'), compile({ name: '20-b.ts', text: 'on.change(fields.a, ({ value }) => { fields.b.value = value; });' }, traced ? 'traced' : 'untraced')] });

describe('the machine', () => {
  test('is put back to the moment before the opening, whatever scripts left behind', async () => {
    const sandbox = new Sandbox(await startModule(), { temporal: false, limits: { ...LIMITS, milliseconds: 60_000 } });
    sandbox.load(material('let count = 0; const kept: number[][] = [];\non.change(fields.a, () => { count++; kept.push(new Array(1000).fill(count)); log(count); });'));
    const runs = Array.from({ length: 40 }, () => {
      const opened = sandbox.open(opening);
      return JSON.stringify([opened, sandbox.step({ set: 'a', to: 1 }), sandbox.step({ set: 'a', to: 2 })]);
    });
    expect(new Set(runs).size).toBe(1);
  });

  test('lets no script reach what others use', async () => {
    const sandbox = new Sandbox(await startModule(), { temporal: false, limits: { ...LIMITS, milliseconds: 60_000 } });
    const tries = [
      'Array.prototype.map = () => [] as any;',
      '(Object.prototype as any).polluted = 1;',
      'JSON.stringify = () => "x";',
      '(() => {}).constructor("return 1")();',
      '(globalThis as any).__answer("{}");',
      '(fields as any).extra = 1;',
      'Object.setPrototypeOf(form, null);',
    ];
    for (const code of tries) {
      sandbox.load(material(`on.load(() => { ${code} });`));
      const opened = sandbox.open(opening);
      expect([code, opened.errors.length, sandbox.step({ set: 'a', to: 4 }).changes.b]).toEqual([code, 1, { value: 4 }]);
    }
  });

  test('ends a script that eats memory, and the others go on', async () => {
    const sandbox = new Sandbox(await startModule(), { temporal: false, limits: { ...LIMITS, milliseconds: 60_000 } });
    sandbox.load(material('on.change(fields.a, () => {\n  let s = "x";\n  for (;;) s += s;\n});'));
    sandbox.open(opening);
    const answer = sandbox.step({ set: 'a', to: 1 });
    expect(answer.errors).toMatchObject([{ code: 'memory', behaviour: '10-a', line: 3 }]);
    expect(answer.changes.b).toEqual({ value: 1 });
  });
});

/** A loaded machine is slow at honest work too, and no test is to tell the two apart by the second. */
const PATIENT = { answer: 5000, watched: 3000, boot: 60_000 };

describe('the engine around it', () => {
  const thread = join(process.cwd(), 'node_modules/.cache/tavro-test/engine.thread.mjs');
  beforeAll(async () => {
    await build({ entryPoints: ['src/workers/engine.thread.ts'], outfile: thread, bundle: true, platform: 'node', format: 'esm', packages: 'external' });
  });

  test.each([
    ['a built-in that never yields', 'on.change(fields.a, ({ value }) => {\n  if (value !== 5) return;\n  const list: unknown[] = []; list.length = 2 ** 32 - 1;\n  list.indexOf(1);\n});', 4],
    ['memory kept from run to run', 'const kept: string[] = [];\non.change(fields.a, ({ value }) => {\n  if (value === 5) for (;;) kept.push("x".repeat(100000) + kept.length);\n});', 3],
  ])('%s: the step comes through, nothing done is lost, the line is named', async (_what, source, line) => {
    const engine = engineInThread(thread, PATIENT);
    await engine.load(material(source));
    await engine.play(opening, [{ set: 'note', to: 'typed' }, { set: 'a', to: 1 }]);
    const answer = await engine.step({ set: 'a', to: 5 });
    expect(answer.changes.b).toEqual({ value: 5 });
    const again = await engine.step({ submit: true });
    expect(again.submit).toMatchObject({ saved: true, values: { note: 'typed', a: 5, b: 5 } });
    const failing = [...answer.failing, ...answer.errors];
    expect(failing.some((failure) => failure.behaviour === '10-a' && failure.line === line)).toBe(true);
    engine.close();
  });

  test('a script stuck at its top level is out, and the form opens', async () => {
    const engine = engineInThread(thread, PATIENT);
    await engine.load(material('const list: unknown[] = [];\nlist.length = 2 ** 32 - 1;\nlist.indexOf(1);'));
    const [opened] = await engine.play(opening, []);
    expect(opened!.failing).toMatchObject([{ code: 'stuck', behaviour: '10-a' }]);
    engine.close();
  });

  test('calls at the same time are done one after the other', async () => {
    const engine = engineInThread(thread, PATIENT);
    await engine.load(material(''));
    const [answers, second] = await Promise.all([engine.play(opening, [{ set: 'a', to: 1 }]), engine.step({ set: 'a', to: 2 })]);
    expect([answers[1]!.changes.b, second.changes.b]).toEqual([{ value: 1 }, { value: 2 }]);
    engine.close();
  });
});
