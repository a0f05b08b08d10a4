/**
 * A live folder in which somebody puts links, pipes and what leads elsewhere, on the app as it runs: it goes on answering,
 * holds no more than before, and nothing outside the folder is read or written.
 */
import { execFileSync } from 'node:child_process';
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { App } from './app';
import { report, thorough } from './support';

const WORD = 'Zephyrine';
const above = mkdtempSync(join(tmpdir(), 'tavro-live-'));
const folder = join(above, 'demo');
const elsewhere = mkdtempSync(join(tmpdir(), 'tavro-elsewhere-'));
const app = new App(Number(process.env.TAVRO_LIVE_PORT ?? 3941), { TAVRO_FOLDERS: above });
const database = new Client({ connectionString: process.env.DATABASE_URL! });
let name = '';
let schema = '';
let tried = 0;

beforeAll(async () => {
  cpSync('demo', folder, { recursive: true });
  writeFileSync(join(elsewhere, 'secret.ts'), `// ${WORD}`);
  cpSync('demo/forms/vessel', join(elsewhere, 'vessel'), { recursive: true });
  writeFileSync(join(elsewhere, 'vessel/behaviours/10-register.ts'), `// ${WORD}`);
  await database.connect();
  await app.start();
  const opened = await app.ask('POST', '/api/folders', { folder });
  expect(opened).toMatchObject({ status: 201 });
  name = opened!.body!.name as string;
  const { rows } = await database.query<{ schema: string }>(
    'select schema from tavro.workspace where name = $1',
    [name],
  );
  schema = rows[0]!.schema;
});

afterAll(async () => {
  await app.ask('DELETE', `/api/workspaces/${name}`);
  await app.kill();
  await database.end();
  for (const one of [above, elsewhere]) rmSync(one, { recursive: true, force: true });
  report(
    'Links, pipes and what leads elsewhere in a live folder',
    tried,
    'each named on the page of workspaces; the app went on answering and held no more; nothing outside was read or written',
  );
});

/** What the page of workspaces says of the folder. */
const says = async (): Promise<string> => {
  const page = await fetch(`${app.at}/workspaces`);
  return (await page.text()).replace(/<[^>]+>/g, ' ');
};

async function until(what: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 600; i++) {
    if (await what()) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('it did not come to that');
}

const OUTSIDE: [string, (at: string) => void, RegExp][] = [
  ['notes', (at) => symlinkSync('/', at), /notes is a link and is not looked into/],
  ['proc', (at) => symlinkSync('/proc', at), /proc is a link/],
  ['pipe', (at) => void execFileSync('mkfifo', [at]), /pipe is a pipe/],
  ['home', (at) => symlinkSync(elsewhere, at), /home is a link/],
];
const INSIDE: [string, (at: string) => void, RegExp][] = [
  [
    'behaviours/95-link.ts',
    (at) => symlinkSync(join(elsewhere, 'secret.ts'), at),
    /95-link\.ts:1: is a link/,
  ],
  [
    'forms/vessel/behaviours/95-pipe.ts',
    (at) => void execFileSync('mkfifo', [at]),
    /95-pipe\.ts:1: is a pipe/,
  ],
  ['forms/other', (at) => symlinkSync(join(elsewhere, 'vessel'), at), /forms\/other:1: is a link/],
  ['tables/loop.json', (at) => symlinkSync('loop.json', at), /loop\.json:1: is a link/],
  ['shared/device.ts', (at) => symlinkSync('/dev/zero', at), /device\.ts:1: is a link/],
];

test.each([...OUTSIDE, ...INSIDE])('%s', async (path, make, expected) => {
  const at = join(folder, path);
  mkdirSync(join(at, '..'), { recursive: true });
  const [held, threads] = [app.megabytes, app.threads];
  make(at);
  tried++;
  await until(async () => expected.test(await says()));
  // Each look at the folder is one more chance to be kept waiting.
  for (let look = 0; look < (thorough ? 12 : 3); look++) {
    writeFileSync(join(folder, 'forms/vessel/behaviours/10-register.ts'), `// look ${look}\n`);
    await new Promise((resolve) => setTimeout(resolve, 150));
    expect((await app.ask('GET', `/w/${name}/api/forms/vessel/records`))!.status).toBe(200);
  }
  expect(app.megabytes).toBeLessThan(held + 500);
  expect(app.threads).toBeLessThan(threads + 12);
  rmSync(at);
  await until(async () => !expected.test(await says()));
  const { rows } = await database.query<{ all: string }>(
    `select coalesce(string_agg(content::text, ' '), '') as all from ${schema}.revision`,
  );
  expect(rows[0]!.all).not.toContain(WORD);
  expect(readFileSync(join(elsewhere, 'secret.ts'), 'utf8')).toBe(`// ${WORD}`);
  expect(readdirSync(elsewhere).toSorted()).toEqual(['secret.ts', 'vessel']);
});

test('a path outside is answered alike, whether anything stands there or not', async () => {
  const answers = new Set<string>();
  for (const path of [
    elsewhere,
    join(elsewhere, 'nothing'),
    '/etc',
    '/etc/nothing',
    join(above, '..', 'nothing'),
    '/proc/self/cwd',
  ]) {
    const answer = await app.ask('POST', '/api/folders', { folder: path });
    answers.add(`${answer!.status} ${String(answer!.body!.says).replaceAll(path, 'PATH')}`);
    tried++;
  }
  expect([...answers]).toHaveLength(1);
  expect([...answers][0]).toMatch(/^403 /);
});
