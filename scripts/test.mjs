// npm test: lint with boundaries, types, dead code, unit, conformance, command line, server and browser tests, on a
// machine that needs nothing but Node.js and apt. The last line counts them all.
import { spawn, spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { checkAll } from './check.mjs';
import {
  buildParts,
  copyDatabase,
  dropAll,
  fail,
  makeFolder,
  needModules,
  needPackages,
  needPort,
  packages,
  prepareDatabase,
  PROJECTS,
  root,
  say,
  served,
  startDatabase,
  stopDatabase,
  suitesWithin,
} from './steps.mjs';

const PORT = Number(process.env.TAVRO_TEST_PORT ?? 3917);
/** The attacks that are quick enough for every change; `npm run attack` runs them all. */
const ATTACKS = ['requests', 'workspaces', 'behaviours'];
/** The demo as it is at first, which each file of browser tests copies. */
const TEMPLATE = 'tavro_demo';
// A data folder and port of its own, so that tests never touch what somebody works on.
const DATABASE = {
  TAVRO_DATA: `${root}/.data/test`,
  TAVRO_DB_PORT: process.env.TAVRO_TEST_DB_PORT ?? '54339',
  TAVRO_DB: 'tavro',
};

// A server left over from an ended run would answer for this one.
await needPort(PORT, 'TAVRO_TEST_PORT=3918 npm test');
needPackages([packages.postgresql, packages.chromium]);
needModules();
buildParts();
makeFolder('test-results');
// The build leaves one core idle most of the time, and most checks use one.
const building = inBackground('scripts/build-app.mjs');
const total = await checkAll();
if ((await building) !== 0) fail('The app could not be built.');
const failures = [];

let database = null;
try {
  say('starting PostgreSQL for the tests');
  stopDatabase(DATABASE);
  database = startDatabase(DATABASE);
  const env = { ...process.env, DATABASE_URL: database.url, TZ: 'UTC' };

  count(runVitest(env, PROJECTS));

  dropAll(database.url);
  prepareDatabase(database.url);
  copyDatabase(database.url, TEMPLATE);
  const at = { ...env, ...DATABASE, TAVRO_URL: `http://127.0.0.1:${PORT}` };
  count(await served(database.url, PORT, () => runVitest(at, ['attack'], ATTACKS)));
  count(runBrowser({ ...env, TAVRO_E2E_TEMPLATE: TEMPLATE }));
} finally {
  if (database !== null) stopDatabase(DATABASE);
}

// Named at the end too: what they printed stands far above.
for (const name of failures) console.log(`failed: ${name}`);
console.log(`${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);

/** Runs a script; gives its exit code once it is over. What it prints stands where it comes. */
function inBackground(script) {
  return new Promise((resolve) => {
    spawn('node', [script], { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] }).once(
      'close',
      resolve,
    );
  });
}

function count({ passed, failed }) {
  total.passed += passed;
  total.failed += failed;
}

function runVitest(env, projects, files = []) {
  const output = 'test-results/vitest.json';
  rmSync(`${root}/${output}`, { force: true });
  const { status } = spawnSync(
    'node_modules/.bin/vitest',
    [
      'run',
      ...projects.map((name) => `--project=${name}`),
      ...files.map((name) => `tests/attack/${name}.test.ts`),
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${output}`,
    ],
    { cwd: root, stdio: 'inherit', env },
  );
  const {
    numPassedTests: passed,
    numFailedTests: failed,
    testResults,
  } = JSON.parse(readFileSync(`${root}/${output}`, 'utf8'));
  for (const { name, status: outcome, message, assertionResults } of testResults) {
    const tests = assertionResults.filter((one) => one.status === 'failed');
    for (const { fullName, failureMessages } of tests)
      failures.push(`${name}: ${fullName}\n${failureMessages.join('\n')}`);
    if (outcome === 'failed' && tests.length === 0) failures.push(`${name}\n${message}`);
  }
  // A file that cannot be loaded counts no test, but is a failure.
  return { passed, failed: status !== 0 && failed === 0 ? 1 : failed };
}

function runBrowser(env) {
  const { status } = spawnSync('node_modules/.bin/playwright', ['test'], {
    cwd: root,
    stdio: 'inherit',
    env,
  });
  const { stats, suites } = JSON.parse(readFileSync(`${root}/test-results/e2e.json`, 'utf8'));
  for (const { file, specs } of suites.flatMap(suitesWithin))
    for (const { title, line, ok } of specs) if (!ok) failures.push(`${file}:${line} ${title}`);
  const failed = stats.unexpected;
  return {
    passed: stats.expected + stats.flaky,
    failed: status !== 0 && failed === 0 ? 1 : failed,
  };
}
