// npm run attack: everything that docs/trust.md reports, tried against the app as it runs, in minutes. With a name, such
// as `npm run attack -- requests`, only that part; the experiments of other tests, of which `npm test` does a twentieth, are
// called experiments, and all tests in the browser `browser`. `npm test` runs a quick part of the same.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import {
  buildApp,
  copyDatabase,
  dropAll,
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
} from './steps.mjs';

const PORT = Number(process.env.TAVRO_ATTACK_PORT ?? 3919);
const DATABASE = {
  TAVRO_DATA: `${root}/.data/attack`,
  TAVRO_DB_PORT: process.env.TAVRO_ATTACK_DB_PORT ?? '54359',
  TAVRO_DB: 'tavro',
};
/** The demo as it is at first, which each file of browser tests copies. */
const TEMPLATE = 'tavro_demo';
const RESULTS = `${root}/.data/attacks`;

await needPort(PORT, 'TAVRO_ATTACK_PORT=3920 npm run attack');
needPackages([packages.postgresql, packages.chromium]);
needModules();
buildApp();
const [only, ...more] = process.argv.slice(2);
// One part keeps what the others found.
if (only === undefined) rmSync(RESULTS, { recursive: true, force: true });
const { url } = startDatabase(DATABASE);
let failed = false;
try {
  dropAll(url);
  prepareDatabase(url);
  if (only === undefined || only === 'experiments') failed = !experiments();
  if (only === undefined || only === 'browser') failed = !inBrowser() || failed;
  if (only !== 'experiments' && only !== 'browser')
    failed = (await served(url, PORT, () => attacks())) || failed;
  if (!failed) tell();
} finally {
  stopDatabase(DATABASE);
}
process.exit(failed ? 1 : 0);

/** The attacks, with the app that is served. Whether any failed. */
function attacks() {
  return run(
    ['--project=attack', ...(only === undefined ? [] : [`tests/attack/${only}`, ...more])],
    [],
  );
}

/** Everything that is tried at random, whole. Whether all of it passed. */
function experiments() {
  const files = ['src', 'tests'].flatMap((folder) =>
    readdirSync(`${root}/${folder}`, { recursive: true })
      .map((name) => `${folder}/${name}`)
      .filter(
        (name) =>
          /\.test\.tsx?$/.test(name) &&
          !name.startsWith('tests/attack/') &&
          readFileSync(`${root}/${name}`, 'utf8').includes('support/thorough'),
      ),
  );
  const output = `${root}/.data/experiments.json`;
  const failed = run(
    [...PROJECTS.map((project) => `--project=${project}`), ...files],
    ['--reporter=default', '--reporter=json', `--outputFile.json=${output}`],
  );
  const { numPassedTests: passed } = JSON.parse(readFileSync(output, 'utf8'));
  mkdirSync(RESULTS, { recursive: true });
  writeFileSync(
    `${RESULTS}/experiments.json`,
    JSON.stringify({
      attack: 'Experiments of all tests, whole',
      tried: passed,
      came: `in ${files.length} files: sessions, programs, messages and edits made at random, each compared with something that knows better`,
    }),
  );
  return !failed;
}

/** All tests in the browser, those that `npm test` leaves out too. Whether all of it passed. */
function inBrowser() {
  copyDatabase(url, TEMPLATE);
  const { status } = spawnSync('node_modules/.bin/playwright', ['test'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...environment(), TAVRO_E2E_TEMPLATE: TEMPLATE },
  });
  const { stats } = JSON.parse(readFileSync(`${root}/test-results/e2e.json`, 'utf8'));
  mkdirSync(RESULTS, { recursive: true });
  writeFileSync(
    `${RESULTS}/in-chromium.json`,
    JSON.stringify({
      attack:
        'In Chromium: texts, drafts, prompts, breakpoints, grids, mutation, the search for faults, and all that people do',
      tried: stats.expected + stats.flaky,
      came: 'text was shown as it stands everywhere; what never ends was stopped and the page went on; nothing typed was lost in a crash, by two tabs or without a server',
    }),
  );
  return status === 0;
}

/** Runs tests with all that there is. Whether any failed. */
function run(what, reporters) {
  const { status } = spawnSync('node_modules/.bin/vitest', ['run', ...what, ...reporters], {
    cwd: root,
    stdio: 'inherit',
    env: { ...environment(), TAVRO_URL: `http://127.0.0.1:${PORT}` },
  });
  return status !== 0;
}

function environment() {
  return { ...process.env, ...DATABASE, TAVRO_ATTACK: 'all', DATABASE_URL: url, TZ: 'UTC' };
}

/** Puts what was tried and what came of it into the table of docs/trust.md. */
function tell() {
  const found = existsSync(RESULTS)
    ? readdirSync(RESULTS)
        .sort()
        .map((name) => JSON.parse(readFileSync(`${RESULTS}/${name}`, 'utf8')))
    : [];
  const rows = found.map(
    ({ attack, tried, came }) =>
      `| ${attack.replace(/: 0+(?=\d)/, ': ')} | ${tried.toLocaleString('en-GB')} | ${came.replaceAll('|', '\\|')} |`,
  );
  const file = `${root}/docs/trust.md`;
  const text = readFileSync(file, 'utf8');
  const [before, rest] = text.split('<!-- attack -->');
  const [, after] = rest.split('<!-- /attack -->');
  writeFileSync(
    file,
    `${before}<!-- attack -->\n| What was tried | How often | What came of it |\n| --- | ---: | --- |\n${rows.join('\n')}\n<!-- /attack -->${after}`,
  );
  say('docs/trust.md says what came of it');
}
