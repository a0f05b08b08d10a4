/**
 * A machine that others keep busy: honest submissions, heavy ones, the demo's first check and all scenarios beside so many
 * processes that never rest. Nobody is blamed, nothing comes to anything else than on a quiet machine, and hostile
 * behaviours are contained still. It takes as long as it takes.
 */
import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { compile } from '../../src/core/language/compile';
import { engineInThread } from '../../src/workers/engine-in-thread';
import { formWith, number, text } from '../support/forms';
import { openingOf } from '../support/hosts';
import { STATEMENTS } from './hostile-behaviours';
import { base, OWN_ORIGIN, report, someOf, thorough } from './support';
import { VISIT } from '../support/visit';
import { untilDone } from '../../src/core/sandbox/cut-short';

const BUSY = thorough ? 8 : 3;
const SUBMISSIONS = thorough ? 300 : 20;
const HEAVY = thorough ? 40 : 4;

const headers = { ...OWN_ORIGIN, 'content-type': 'application/json' };
interface Reply {
  status: number;
  again: string | null;
  body: Record<string, unknown>;
}
async function ask(method: string, path: string, body?: unknown): Promise<Reply> {
  const response = await fetch(`${base}${path}`, {
    method,
    headers,
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return {
    status: response.status,
    again: response.headers.get('retry-after'),
    body: (await response.json().catch(() => ({}))) as Record<string, unknown>,
  };
}

/** Sends it again as long as the server asks for that, as a client should. */
async function insisted(method: string, path: string, body?: unknown): Promise<Reply> {
  for (;;) {
    const reply = await ask(method, path, body);
    if (reply.status !== 503) return reply;
    expect(Number(reply.again)).toBeGreaterThan(0);
    await new Promise((resolve) => setTimeout(resolve, Number(reply.again) * 1000));
  }
}

/** So many at a time. */
async function spread<T>(count: number, atOnce: number, work: (i: number) => Promise<T>) {
  const came: T[] = [];
  let next = 0;
  const one = async () => {
    for (let i = next++; i < count; i = next++) came[i] = await work(i);
  };
  await Promise.all(Array.from({ length: atOnce }, one));
  return came;
}

const scenarios = () =>
  new Promise<{ status: number; out: string }>((resolve) => {
    execFile(
      'node',
      ['dist/tavro.mjs', 'test', 'demo', '--reporter', 'json'],
      { env: { ...process.env, TAVRO_CACHE: join('node_modules/.cache/tavro-test/busy') } },
      (error, out) => resolve({ status: error === null ? 0 : Number(error.code), out }),
    );
  });
const tape = () =>
  new Promise<string>((resolve, reject) => {
    const child = execFile(
      'node',
      ['dist/tavro.mjs', 'play', 'demo', '--form', 'berth_visit', '--steps', '-', '--tape'],
      (error, out) => (error === null ? resolve(out) : reject(error)),
    );
    child.stdin!.end(
      '[{"set": "pilot_choice", "to": "own"}, {"set": "length", "to": 120}, {"set": "draught", "to": 6.4}]',
    );
  });

/** Within its fuel, and most of it: what an honest behaviour may take. */
const HEAVY_CODE = `on.change(fields.length, ({ value }) => {
  let sum = 0;
  for (let i = 0; i < 200_000; i++) sum = (sum + i * 7) % 1_000_003;
  fields.length.hint = String(sum + (value ?? 0));
});
`;

const processes: ChildProcess[] = [];
/** Workspaces of the attack's own. */
let heavy = '';
let first = '';
let quiet: { scenarios: Awaited<ReturnType<typeof scenarios>>; tape: string };
beforeAll(async () => {
  for (const form of ['berth_visit']) await insisted('POST', `/api/forms/${form}/releases`, {});
  const made = await insisted('POST', '/api/workspaces', { title: 'Heavy', copyOf: 'home' });
  expect(made.status).toBe(201);
  heavy = made.body.name as string;
  const saved = await insisted('PUT', `/w/${heavy}/api/forms/berth_visit/behaviours/96-heavy.ts`, {
    text: HEAVY_CODE,
    from: 0,
  });
  expect(saved.status).toBe(200);
  expect(
    (await insisted('POST', `/w/${heavy}/api/forms/berth_visit/releases`, { reason: 'An attack.' }))
      .status,
  ).toBe(201);
  quiet = { scenarios: await scenarios(), tape: await tape() };
  expect(quiet.scenarios.status).toBe(0);
  for (let i = 0; i < BUSY; i++)
    processes.push(spawn('node', ['-e', 'for (;;) Math.sqrt(Math.random())'], { stdio: 'ignore' }));
}, 600_000);
afterAll(async () => {
  for (const one of processes) one.kill('SIGKILL');
  for (const name of [heavy, first]) await ask('DELETE', `/api/workspaces/${name}`);
  report(
    'A busy machine: processes that never rest',
    BUSY,
    `beside them ${SUBMISSIONS} honest submissions, ${HEAVY} heavy ones, the demo's first check, all scenarios and ${hostile.length} hostile behaviours: nobody was blamed, nothing came to anything else, all hostile ones were contained`,
  );
});

test('honest submissions are saved, with what they come to on a quiet machine', async () => {
  const came = await spread(SUBMISSIONS, 20, () =>
    insisted('POST', '/api/fill/berth_visit/submissions', { values: VISIT }),
  );
  expect(came.map(({ status }) => status)).toEqual(came.map(() => 201));
  const dues = came.map(({ body }) => (body.values as { dues: number }).dues);
  expect(new Set(dues)).toEqual(new Set([51]));
}, 1_800_000);

test('heavy ones too', async () => {
  const came = await spread(HEAVY, 8, () =>
    insisted('POST', `/w/${heavy}/api/fill/berth_visit/submissions`, { values: VISIT }),
  );
  expect(came.map(({ status, body }) => [status, body.says])).toEqual(
    came.map(() => [201, undefined]),
  );
  // None was kept as one whose script took too long.
  const { body } = await insisted('GET', `/w/${heavy}/api/recordings?form=berth_visit`);
  expect(JSON.stringify(body)).not.toMatch(/too long|stuck/);
}, 1_800_000);

test('the first check of the demo finds what there is, and no scenario that fails', async () => {
  const made = await insisted('POST', '/api/workspaces', { title: 'First look', copyOf: 'home' });
  expect(made.status).toBe(201);
  first = made.body.name as string;
  for (;;) {
    const { status, body } = await insisted('GET', `/w/${first}/api/problems`);
    const { problems, cutShort } = body as unknown as {
      problems: { sort: string; code: string; says: string }[];
      cutShort: unknown[];
    };
    expect(
      problems.filter(({ sort, code }) => sort === 'scenario' || code === 'unchecked'),
    ).toEqual([]);
    if (status === 200 && cutShort.length === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}, 1_800_000);

test('all scenarios and a tape come to the same, to the byte', async () => {
  expect(await scenarios()).toEqual(quiet.scenarios);
  expect(await tape()).toBe(quiet.tape);
}, 1_800_000);

const hostile = someOf(STATEMENTS, 48);
test('hostile behaviours are contained, and the honest one beside them is not blamed', async () => {
  const form = formWith([number('a'), number('b'), text('note'), number('c')]);
  const material = (code: string) => ({
    form,
    tables: [],
    services: [],
    answering: [],
    modules: [],
    traced: false,
    scripts: [
      compile(
        { name: '10-hostile.ts', text: `on.change(fields.a, async () => { ${code} });` },
        'untraced',
      ),
      compile(
        {
          name: '20-honest.ts',
          text: 'on.change(fields.a, ({ value }) => { fields.c.value = value; });',
        },
        'untraced',
      ),
    ],
  });
  await spread(hostile.length, 2, async (i) => {
    const { code } = hostile[i]!;
    const engine = engineInThread(join(process.cwd(), 'dist/engine.thread.mjs'));
    try {
      await engine.load(material(code));
      // What a busy machine cuts short blames nobody and is done again, as the app does it.
      await untilDone(() => engine.play(openingOf({ form }), []));
      const answer = await untilDone(() => engine.step({ set: 'a', to: 3 }));
      expect(answer.refused, code).toBeNull();
      const honest = [...answer.errors, ...answer.failing].filter(
        ({ behaviour }) => behaviour === '20-honest',
      );
      expect(honest, code).toEqual([]);
      expect(
        engine.stuck.filter(({ behaviour }) => behaviour !== '10-hostile'),
        code,
      ).toEqual([]);
      const { submit } = await untilDone(() => engine.step({ submit: true }));
      expect(Object.keys(submit!.values).toSorted(), code).toEqual(['a', 'b', 'c', 'note']);
      if (!/fields\.(a|c)/.test(code)) expect(submit!.values, code).toMatchObject({ a: 3, c: 3 });
    } finally {
      engine.close();
    }
  });
}, 3_600_000);
