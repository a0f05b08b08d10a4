/** Starting the database: killed half way, twice at once, in folders that cannot be used. It goes on, or says in a sentence what is the matter. */
import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Client } from 'pg';
import { afterAll, afterEach, beforeEach, expect, test } from 'vitest';
import { report, someOf, thorough } from './support';

const port = '54891';
let data = '';
let tried = 0;
beforeEach(() => {
  const folder = mkdtempSync(join(tmpdir(), 'tavro-start-'));
  // The user that PostgreSQL runs as has to get in.
  chmodSync(folder, 0o755);
  data = join(folder, 'data');
});
afterEach(() => {
  spawnSync('bash', ['scripts/postgres.sh', 'stop'], { env: env(), stdio: 'ignore' });
  rmSync(dirname(data), { recursive: true, force: true });
});
const env = (folder = data) => ({
  ...process.env,
  TAVRO_DATA: folder,
  TAVRO_DB_PORT: port,
  TAVRO_DB: 'tavro',
});
const script = (what: 'start' | 'stop', folder = data) => {
  tried++;
  const { status, stdout, stderr } = spawnSync('bash', ['scripts/postgres.sh', what], {
    encoding: 'utf8',
    env: env(folder),
    timeout: 120_000,
  });
  return { status, url: stdout.trim(), says: stderr.trim() };
};
afterAll(() =>
  report(
    'Starting and stopping the database',
    tried,
    'it went on after being killed half way; an app that ends leaves the database to another that uses it; what cannot be used is said in a sentence',
  ),
);

test.each(someOf([100, 300, 500, 800, 1200, 1700], 3))(
  'killed after %i ms, it starts the next time',
  async (after) => {
    const started = spawn('bash', ['scripts/postgres.sh', 'start'], {
      env: env(),
      stdio: 'ignore',
      detached: true,
    });
    await new Promise((resolve) => setTimeout(resolve, after));
    try {
      process.kill(-started.pid!, 'SIGKILL');
    } catch {
      // It was through already.
    }
    spawnSync('pkill', ['-9', '-f', `${data}/postgres`]);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(script('start')).toMatchObject({ status: 0, url: expect.stringMatching(/^postgres:/) });
    expect(script('stop').status).toBe(0);
  },
  120_000,
);

test('two that start at once get one database, and one that ends leaves it to the other', async () => {
  const both = await Promise.all(
    [1, 2].map(
      () =>
        new Promise<string>((resolve) => {
          const one = spawn('bash', ['scripts/postgres.sh', 'start'], { env: env() });
          let out = '';
          one.stdout.on('data', (chunk: Buffer) => (out += chunk.toString()));
          one.on('exit', () => resolve(out.trim()));
        }),
    ),
  );
  expect(both[0]).toMatch(/^postgres:/);
  expect(both[1]).toBe(both[0]);
  const user = new Client({ connectionString: both[0]! });
  await user.connect();
  expect(script('stop')).toEqual({ status: 3, url: '', says: 'another app still uses it' });
  expect((await user.query('select 1 as one')).rows).toEqual([{ one: 1 }]);
  await user.end();
  expect(script('stop').status).toBe(0);
}, 120_000);

test('a folder that holds something else is left alone', () => {
  mkdirSync(join(data, 'postgres'), { recursive: true });
  writeFileSync(join(data, 'postgres/letter.txt'), 'mine');
  expect(script('start')).toMatchObject({
    status: 1,
    says: expect.stringContaining('holds something that is no database'),
  });
});

test.skipIf(process.getuid?.() !== 0 || !thorough).each([
  ['read-only', 'ro', /cannot be (?:made|written)/],
  ['full', 'size=20m', /has only \d+ MB left/],
])('a disk that is %s is said to be', (_what, options, says) => {
  const mount = mkdtempSync(join(tmpdir(), 'tavro-disk-'));
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', mount]).status !== 0) return;
  try {
    expect(script('start', join(mount, 'data'))).toMatchObject({
      status: 1,
      says: expect.stringMatching(says),
    });
  } finally {
    spawnSync('umount', [mount]);
    rmSync(mount, { recursive: true, force: true });
  }
});

const APP_PORT = 54_892;
const answers = (at: number) =>
  fetch(`http://127.0.0.1:${at}/`).then(
    () => true,
    () => false,
  );

test.each(
  someOf(
    [
      ['SIGTERM', 'npm'],
      ['SIGINT', 'the group'],
      ['SIGKILL', 'npm'],
      ['SIGHUP', 'npm'],
    ] as const,
    4,
  ),
)(
  'npm start, ended by %s to %s, leaves neither server nor database',
  async (signal, whom) => {
    // What started this may be deaf to SIGHUP, as nohup makes it, and whatever it starts would be too.
    const npm = spawn('env', ['--default-signal=HUP', 'npm', 'start'], {
      env: { ...env(), PORT: String(APP_PORT) },
      stdio: 'ignore',
      detached: true,
    });
    const until = async (there: boolean) => {
      for (let i = 0; (await answers(APP_PORT)) !== there; i++) {
        expect(i, `${there ? 'served' : 'ended'} in time`).toBeLessThan(2400);
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    };
    await until(true);
    process.kill(whom === 'npm' ? npm.pid! : -npm.pid!, signal);
    tried++;
    await until(false);
    const running = () =>
      spawnSync('pgrep', ['-f', `${data}/postgres|serve.mjs ${APP_PORT}`], { encoding: 'utf8' })
        .stdout;
    for (let i = 0; running() !== ''; i++) {
      expect(i, `left: ${running()}`).toBeLessThan(300);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  },
  600_000,
);
