import { join } from 'node:path';
import { build } from 'esbuild';
import { beforeAll, describe, expect, test } from 'vitest';
import { formWith, number, text } from '../../../tests/support/forms';
import { Worker } from 'node:worker_threads';
import { engineInThread, engineOnThreads } from '../../workers/engine-in-thread';
import { compile } from '../language/compile';
import type { Material } from '../session/material';
import type { Opening } from '../session/step';
import { packImage, readImage, type Image } from './image';
import { startModule } from './quickjs';
import { Sandbox } from './sandbox';

const form = formWith([number('a'), number('b'), text('note')]);
const opening: Opening = {
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: null,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
};
const material = (source: string, traced = true): Material => ({
  form,
  tables: [],
  services: [],
  answering: [],
  modules: [],
  traced,
  scripts: [
    compile({ name: '10-a.ts', text: source }, traced ? 'traced' : 'untraced'),
    compile(
      { name: '20-b.ts', text: 'on.change(fields.a, ({ value }) => { fields.b.value = value; });' },
      traced ? 'traced' : 'untraced',
    ),
  ],
});

describe('the machine', () => {
  test('is put back to the moment before the opening, whatever scripts left behind', async () => {
    const sandbox = new Sandbox(await startModule(), {
      temporal: false,
    });
    sandbox.load(
      material(
        'let count = 0; const kept: number[][] = [];\non.change(fields.a, () => { count++; kept.push(new Array(1000).fill(count)); log(count); });',
      ),
    );
    const runs = Array.from({ length: 40 }, () => {
      const opened = sandbox.open(opening);
      return JSON.stringify([
        opened,
        sandbox.step({ set: 'a', to: 1 }),
        sandbox.step({ set: 'a', to: 2 }),
      ]);
    });
    expect(new Set(runs).size).toBe(1);
  });

  test('lets no script reach what others use', async () => {
    const sandbox = new Sandbox(await startModule(), {
      temporal: false,
    });
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
      expect([code, opened.errors.length, sandbox.step({ set: 'a', to: 4 }).changes.b]).toEqual([
        code,
        1,
        { value: 4 },
      ]);
    }
  });

  test('ends a script that eats memory, and the others go on', async () => {
    const sandbox = new Sandbox(await startModule(), {
      temporal: false,
    });
    sandbox.load(material('on.change(fields.a, () => {\n  let s = "x";\n  for (;;) s += s;\n});'));
    sandbox.open(opening);
    const answer = sandbox.step({ set: 'a', to: 1 });
    expect(answer.errors).toMatchObject([{ code: 'memory', behaviour: '10-a', line: 3 }]);
    expect(answer.changes.b).toEqual({ value: 1 });
  });
});

describe('the image of a machine', () => {
  const sandboxFrom = async (image: Image | null, temporal = false) =>
    new Sandbox(await startModule(), {
      temporal,
      image,
    });
  const session = (sandbox: Sandbox, source: string) => {
    sandbox.load(material(source));
    return JSON.stringify([
      sandbox.open(opening),
      sandbox.step({ set: 'a', to: 2 }),
      sandbox.step({ set: 'note', to: 'quay 4 – Ærø' }),
    ]);
  };

  test.each([false, true])(
    'gives a machine that does all that the one it is of does (with Temporal: %s)',
    async (temporal) => {
      const booted = await sandboxFrom(null, temporal);
      const image = readImage(packImage(booted.image, 'a'), 'a');
      const started = await sandboxFrom(image, temporal);
      for (const source of [
        'on.change(fields.note, ({ value }) => { log(value, Math.random(), typeof Temporal); });',
        'on.change(fields.a, () => { for (;;); });',
        'on.load(() => { throw new Error("no"); });\nkeep(fields.b, { required: () => fields.a.value === 2 });',
      ])
        expect(session(started, source)).toBe(session(booted, source));
    },
  );

  test('is refused where it is one of another machine, cut short or no image', async () => {
    const packed = packImage((await sandboxFrom(null)).image, 'a');
    expect(readImage(packed, 'a')).not.toBeNull();
    expect(readImage(packed, 'b')).toBeNull();
    expect(readImage(packed.subarray(0, 5000), 'a')).toBeNull();
    expect(readImage(new TextEncoder().encode('{"mark": "a"}\nrest'), 'a')).toBeNull();
    expect(readImage(new Uint8Array(100), 'a')).toBeNull();
  });
});

/** What is told apart is told by the thread's own time, so that these need not be long on a busy machine. */
const PATIENT = { silence: 150, step: 60_000, unheard: 120_000 };

describe('the engine around it', () => {
  const thread = join(process.cwd(), 'node_modules/.cache/tavro-test/engine.thread.mjs');
  beforeAll(async () => {
    await build({
      entryPoints: ['src/workers/engine.thread.ts'],
      outfile: thread,
      bundle: true,
      platform: 'node',
      format: 'esm',
      packages: 'external',
    });
  });

  test.each([
    [
      'a built-in that never yields',
      'on.change(fields.a, ({ value }) => {\n  if (value !== 5) return;\n  const list: unknown[] = []; list.length = 2 ** 32 - 1;\n  list.indexOf(1);\n});',
      4,
    ],
    [
      'memory kept from run to run',
      'const kept: number[][] = [];\non.change(fields.a, ({ value }) => {\n  if (value === 5) for (;;) kept.push(new Array(1000).fill(kept.length));\n});',
      3,
    ],
  ])(
    '%s: the step comes through, nothing done is lost, the line is named',
    async (_what, source, line) => {
      const engine = engineInThread(thread, PATIENT);
      await engine.load(material(source));
      await engine.play(opening, [
        { set: 'note', to: 'typed' },
        { set: 'a', to: 1 },
      ]);
      const answer = await engine.step({ set: 'a', to: 5 });
      expect(answer.changes.b).toEqual({ value: 5 });
      const again = await engine.step({ submit: true });
      expect(again.submit).toMatchObject({ saved: true, values: { note: 'typed', a: 5, b: 5 } });
      const failing = [...answer.failing, ...answer.errors];
      expect(failing.some((failure) => failure.behaviour === '10-a' && failure.line === line)).toBe(
        true,
      );
      engine.close();
    },
  );

  test('a script stuck at its top level is out, and the form opens', async () => {
    const engine = engineInThread(thread, PATIENT);
    await engine.load(
      material('const list: unknown[] = [];\nlist.length = 2 ** 32 - 1;\nlist.indexOf(1);'),
    );
    const [opened] = await engine.play(opening, []);
    expect(opened!.failing).toMatchObject([{ code: 'stuck', behaviour: '10-a' }]);
    engine.close();
  });

  test('recursion is called recursion, whatever it goes through', async () => {
    const sandbox = new Sandbox(await startModule(), {
      temporal: false,
    });
    const recursions = [
      'const o = { get x(): number { return o.x + 1; } }; o.x;',
      'const f = (n: number): unknown => [n].map(() => f(n + 1)); f(1);',
      'function* g(n: number): Generator<number> { yield* g(n + 1); } [...g(1)];',
      'const f = async (n: number): Promise<number> => await f(n + 1); await f(1);',
      'const p: any = new Proxy({}, { get: (_t, k, r) => r[k] }); p.x;',
      'class A { b: A; constructor() { this.b = new A(); } } new A();',
      'const f = (x: any = f()): any => x; f();',
    ];
    for (const code of recursions) {
      sandbox.load(material(`on.change(fields.a, async () => {\n  ${code}\n});`, false));
      sandbox.open(opening);
      expect([code, sandbox.step({ set: 'a', to: 1 }).errors[0]?.code]).toEqual([code, 'depth']);
    }
  });

  test('a pattern that backtracks without an end is stopped and named, and the form goes on', async () => {
    const engine = engineInThread(thread, PATIENT);
    await engine.load({
      ...material(''),
      form: formWith([text('note', { pattern: '(a+)+b' }), number('a'), number('b')]),
    });
    await engine.play(opening, [{ set: 'note', to: 'a'.repeat(40) }]);
    expect((await engine.step({ submit: true })).submit).toMatchObject({
      saved: false,
      stops: [{ part: 'note', says: 'The pattern of Note takes too long to check this text.' }],
    });
    await engine.step({ set: 'note', to: 'aaab' });
    expect((await engine.step({ submit: true })).submit).toMatchObject({ saved: true });
    expect(engine.stuck).toEqual([]);
    engine.close();
  });

  test.each([true, false])(
    'work within fuel is not taken for being stuck, however much of it a step has (traced: %s)',
    async (traced) => {
      const rule = (i: number) =>
        compile(
          {
            name: `${i}-r.ts`,
            text: `on.change(fields.a, () => { let n = 0; for (let i = 0; i < 200000; i++) n += i; fields.b.value = n; });`,
          },
          traced ? 'traced' : 'untraced',
        );
      const engine = engineInThread(thread, PATIENT);
      await engine.load({
        ...material('', traced),
        scripts: Array.from({ length: 8 }, (_, i) => rule(10 + i)),
      });
      await engine.play(opening, []);
      const answer = await engine.step({ set: 'a', to: 1 });
      expect([answer.errors, answer.failing, engine.stuck]).toEqual([[], [], []]);
      engine.close();
    },
  );

  test('a suspect that gets stuck again is taken out without being looked for', async () => {
    const asked: unknown[] = [];
    const engine = engineOnThreads(() => {
      const worker = new Worker(thread);
      const post = worker.postMessage.bind(worker);
      worker.postMessage = (message: unknown) => {
        asked.push(message);
        post(message);
      };
      return worker;
    }, PATIENT);
    const stuck =
      'on.change(fields.a, () => {\n  const list: unknown[] = []; list.length = 2 ** 32 - 1;\n  list.indexOf(1);\n});';
    await engine.load(material(stuck, false), [{ behaviour: '10-a', line: 3 }]);
    const answers = await engine.play(opening, [{ set: 'a', to: 1 }]);
    expect(answers[1]!.changes.b).toEqual({ value: 1 });
    expect(engine.stuck).toEqual([{ behaviour: '10-a', line: 3 }]);
    expect(asked).not.toContainEqual(expect.objectContaining({ watched: true }));
    engine.close();
  });

  test('calls at the same time are done one after the other', async () => {
    const engine = engineInThread(thread, PATIENT);
    await engine.load(material(''));
    const [answers, second] = await Promise.all([
      engine.play(opening, [{ set: 'a', to: 1 }]),
      engine.step({ set: 'a', to: 2 }),
    ]);
    expect([answers[1]!.changes.b, second.changes.b]).toEqual([{ value: 1 }, { value: 2 }]);
    engine.close();
  });
});
