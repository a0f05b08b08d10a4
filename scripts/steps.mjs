// What the start and test commands have in common. Plain Node.js: it runs before anything is installed.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** The projects of vitest.config.ts that need no app; the attacks need one. */
export const PROJECTS = ['unit', 'pages', 'conformance', 'command line', 'server'];

export function say(text) {
  console.log(`tavro: ${text}`);
}

export function fail(text) {
  console.error(`tavro: ${text}`);
  process.exit(1);
}

/** Runs a command to its end; ends the whole when it fails. */
export function run(command, args, env = {}) {
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  if (result.status !== 0) fail(`${command} ${args.join(' ')} failed.`);
}

/** Installs Debian packages whose programs are missing. */
export function needPackages(wanted) {
  const missing = wanted.filter(({ there }) => !there()).map(({ name }) => name);
  if (missing.length === 0) return;
  say(`installing the Debian packages ${missing.join(', ')}`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = [
    ...sudo,
    'env',
    'DEBIAN_FRONTEND=noninteractive',
    'apt-get',
    '-o',
    'DPkg::Lock::Timeout=300',
    '-qq',
  ];
  run(apt[0], [...apt.slice(1), 'update']);
  run(apt[0], [...apt.slice(1), 'install', '-y', ...missing]);
}

export const packages = {
  postgresql: {
    name: 'postgresql',
    there: () =>
      existsSync('/usr/lib/postgresql') &&
      readdirSync('/usr/lib/postgresql').some((v) =>
        existsSync(`/usr/lib/postgresql/${v}/bin/initdb`),
      ),
  },
  chromium: { name: 'chromium', there: () => existsSync('/usr/bin/chromium') },
};

/** Installs the npm packages when the lock file is newer than what is installed. */
export function needModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules/.tavro-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('installing npm packages');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, lock);
}

/** Bundles the session, the compiler's libraries, the command line and the sandbox thread. */
export function buildParts() {
  for (const script of ['build-guest', 'build-libs', 'build-node'])
    run('node', [`scripts/${script}.mjs`]);
}

/** Builds the app unless the last build is of the same sources. */
export function buildApp() {
  const stamp = join(root, '.next/tavro-sources');
  const now = sourcesHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  say('building the app, which takes about a minute');
  buildParts();
  run('npx', ['--no-install', 'next', 'build'], { NEXT_TELEMETRY_DISABLED: '1' });
  writeFileSync(stamp, now);
}

function sourcesHash() {
  const hash = createHash('sha256');
  const walk = (path) => {
    const full = join(root, path);
    if (!existsSync(full)) return;
    if (statSync(full).isDirectory()) {
      for (const entry of readdirSync(full).sort())
        if (entry !== 'generated') walk(`${path}/${entry}`);
    } else if (!/\.test\.tsx?$/.test(path)) hash.update(path).update(readFileSync(full));
  };
  for (const path of [
    'src',
    'scripts',
    'drizzle',
    'package-lock.json',
    'next.config.ts',
    'tsconfig.json',
  ])
    walk(path);
  return hash.digest('hex');
}

/** Starts PostgreSQL; gives the URL and whether it was started by this call. */
export function startDatabase(env = {}) {
  const all = { ...process.env, ...env };
  const port = Number(all.TAVRO_DB_PORT ?? 54329);
  const before = isListening(port);
  const result = spawnSync('bash', ['scripts/postgres.sh', 'start'], {
    cwd: root,
    env: all,
    encoding: 'utf8',
  });
  if (result.status !== 0) fail(result.stderr.trim());
  return { url: result.stdout.trim(), started: !before };
}

/** Stops PostgreSQL unless another app still uses it; gives whether it was stopped. */
export function stopDatabase(env = {}) {
  return (
    spawnSync('bash', ['scripts/postgres.sh', 'stop'], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: 'ignore',
    }).status === 0
  );
}

export function prepareDatabase(url) {
  // It says itself what is the matter.
  if (
    spawnSync('node', ['dist/prepare.mjs'], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, DATABASE_URL: url },
    }).status !== 0
  )
    process.exit(1);
}

/** Whether anything listens where the database would. */
export function isDatabaseListening(env = {}) {
  return isListening(Number({ ...process.env, ...env }.TAVRO_DB_PORT ?? 54329));
}

function isListening(port) {
  try {
    execFileSync('bash', ['-c', `exec 3<>/dev/tcp/127.0.0.1/${port}`], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

/** Ends with the port's name when something else listens on it. */
export function needPort(port, elsewhere) {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () =>
      fail(`port ${port} is taken. Stop what uses it, or set a free one: ${elsewhere}`),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve()));
  });
}

export function serve(url, port) {
  return spawn('node', ['scripts/serve.mjs', String(port)], {
    cwd: root,
    stdio: 'inherit',
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: url,
      NEXT_TELEMETRY_DISABLED: '1',
    },
  });
}

/** Works through the queue of searches, beside the app. */
export function serveSearches(url) {
  return spawn('node', ['dist/worker.mjs'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, DATABASE_URL: url },
  });
}

export function makeFolder(path) {
  mkdirSync(join(root, path), { recursive: true });
}

/** Puts the database back to empty, so that browser tests meet the demo as it is. */
export function dropAll(url) {
  query(
    url,
    // Each workspace has a schema, and so have the list of them and the extensions.
    `do $$ declare one text; begin
      for one in select nspname from pg_namespace where nspname !~ '^(pg_|information_schema$)'
      loop execute format('drop schema %I cascade', one); end loop;
    end $$; create schema public`,
  );
}

/** Copies a database that nobody uses to one of another name. */
export function copyDatabase(url, name) {
  const admin = new URL(url);
  const from = admin.pathname.slice(1);
  admin.pathname = '/postgres';
  query(admin.href, `drop database if exists ${name} with (force)`);
  query(admin.href, `create database ${name} template ${from}`);
}

function query(url, text) {
  const result = spawnSync(
    'node',
    [
      '-e',
      "import('pg').then(async ({ default: { Client } }) => { const c = new Client({ connectionString: process.env.URL }); await c.connect(); await c.query(process.env.QUERY); await c.end(); })",
    ],
    { cwd: root, env: { ...process.env, URL: url, QUERY: text }, stdio: 'inherit' },
  );
  if (result.status !== 0) fail(`the test database does not do this: ${text}`);
}

/** Waits until the app answers. */
export async function untilServed(port) {
  for (let i = 0; i < 2400; i++) {
    const there = await fetch(`http://127.0.0.1:${port}/`).then(
      (response) => response.ok,
      () => false,
    );
    if (there) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  fail(`the app did not come up on port ${port}.`);
}

/** Does work while the app is served, and waits until it is no more. */
export async function served(url, port, work) {
  const server = serve(url, port);
  const gone = new Promise((resolve) => server.once('exit', resolve));
  try {
    await untilServed(port);
    return await work();
  } finally {
    server.kill('SIGTERM');
    const timer = setTimeout(() => server.kill('SIGKILL'), 5000);
    await gone;
    clearTimeout(timer);
  }
}

/** A suite of the browser tests' report, with all within it. */
export function suitesWithin(suite) {
  return [suite, ...(suite.suites ?? []).flatMap(suitesWithin)];
}
