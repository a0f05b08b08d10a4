// npm run mutate-sources -- [--places 60] [--seed 1] [--only src/ui] [--skip 20]: are our own tests any good? Changes one
// place of src at a time, runs the nearest tests and puts it back; says which changes nobody noticed, by folder. In a copy
// of the tree, so that an interruption leaves nothing changed, and that one can go on with `--skip`. Takes an hour; not
// part of any other command. `-- --browser yes` goes on with those in the app that nobody noticed, by the tests in the
// browser, and counts all together.
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { IN_APP, inBrowser } from './mutants/in-browser.mjs';
import { placesIn, randomFrom } from './mutants/places.mjs';
import {
  buildParts,
  fail,
  makeFolder,
  needModules,
  needPackages,
  packages,
  root,
  say,
  startDatabase,
  stopDatabase,
} from './steps.mjs';

const options = Object.fromEntries(
  process.argv
    .slice(2)
    .join(' ')
    .split(/\s*--/)
    .filter(Boolean)
    .map((one) => one.split(/[ =]/)),
);
const PLACES = Number(options.places ?? 60);
const ONLY = options.only ?? 'src';
/** How many of the places were tried before. */
const SKIP = Number(options.skip ?? 0);
/** Milliseconds for the tests of one change: what changes an end of a loop may never end. */
const PATIENCE = Number(options.patience ?? 1800) * 1000;
const DATABASE = { TAVRO_DATA: `${root}/.data/mutants`, TAVRO_DB_PORT: '54389', TAVRO_DB: 'tavro' };
/** What nobody noticed so far, for the tests in the browser. */
const KEPT = join(root, 'test-results/mutants.json');
/** What runs from a bundle, which is made anew where it changes. */
const BUNDLED = /^src\/core\/(guest|wire|form)\//;

const random = randomFrom(Number(options.seed ?? 1));
const pick = (list) => list[Math.floor(random() * list.length)];

const sources = readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
  .map((path) => `src/${path}`)
  .filter(
    (path) =>
      path.startsWith(ONLY) && /\.tsx?$/.test(path) && !/\.test\.tsx?$|generated\//.test(path),
  );
/** The folder that is reported: a room of the core, the server, the ui or the bench. */
const folderOf = (path) => {
  const parts = dirname(path).split('/').slice(1);
  return parts.slice(0, parts[0] === 'ui' && parts[1] === 'bench' ? 3 : 2).join('/');
};

needPackages([packages.postgresql, packages.chromium]);
needModules();
buildParts();
makeFolder('test-results');
const copy = mkdtempSync(join(tmpdir(), 'tavro-mutants-'));
const { url } = startDatabase(DATABASE);
process.on('exit', () => {
  rmSync(copy, { recursive: true, force: true });
  stopDatabase(DATABASE);
});
process.on('SIGINT', () => process.exit(1));
process.on('SIGTERM', () => process.exit(1));
for (const name of readdirSync(root))
  if (!['node_modules', '.git', '.next', '.data', 'test-results'].includes(name))
    cpSync(join(root, name), join(copy, name), { recursive: true });
// The app is built from modules within its tree only; links to the same files cost nothing.
if (spawnSync('cp', ['-al', join(root, 'node_modules'), join(copy, 'node_modules')]).status !== 0)
  cpSync(join(root, 'node_modules'), join(copy, 'node_modules'), { recursive: true });
const RESULTS = join(copy, 'mutants.json');

/** Runs tests of the copy; the test that fails, or null. */
function failing(args) {
  rmSync(RESULTS, { force: true });
  const { status, signal } = spawnSync(
    'node_modules/.bin/vitest',
    [
      ...args,
      '--run',
      '--bail=1',
      '--passWithNoTests',
      '--reporter=json',
      `--outputFile=${RESULTS}`,
    ],
    {
      cwd: copy,
      timeout: PATIENCE,
      env: { ...process.env, ...DATABASE, DATABASE_URL: url, TZ: 'UTC' },
    },
  );
  if (status === 0) return null;
  if (signal !== null) return 'tests that did not end';
  if (!existsSync(RESULTS)) return 'tests that could not start';
  const { testResults } = JSON.parse(readFileSync(RESULTS, 'utf8'));
  const failed = testResults.find((one) => one.status === 'failed');
  const test = failed?.assertionResults.find((one) => one.status === 'failed');
  return `${failed === undefined ? 'an error beside the tests' : relative(copy, failed.name)} ${test?.fullName ?? ''}`.trim();
}

function build(script) {
  return spawnSync('node', [`scripts/${script}`], { cwd: copy }).status === 0;
}

/** The test that fails with the change, or null; the nearest first, then whatever else depends on the file. */
function noticedBy(path) {
  if (BUNDLED.test(path) && !build('build-guest.mjs')) return 'the bundle';
  const near = readdirSync(join(copy, dirname(path)))
    .filter((name) => /\.test\.tsx?$/.test(name))
    .map((name) => join(dirname(path), name));
  const related = (...projects) =>
    failing(['related', path, ...projects.map((one) => `--project=${one}`)]);
  return (
    (near.length > 0 ? failing(['--project=unit', '--project=pages', ...near]) : null) ??
    related('unit', 'pages', 'conformance') ??
    (/^src\/(server|workers)\//.test(path) ? related('server') : null) ??
    (/^src\/(cli|workers)\//.test(path) ? inCommandLine() : null)
  );
}

/** Tests of the command line run what is built. */
function inCommandLine() {
  return build('build-node.mjs') ? failing(['--project=command line']) : 'the build';
}

const report = new Map();
const survived = [];
if (options.browser === undefined) {
  for (let tried = 0; tried < PLACES;) {
    const path = pick(sources);
    const text = readFileSync(join(copy, path), 'utf8');
    const places = placesIn(text, path);
    if (places.length === 0) continue;
    const { from, to, by, what } = pick(places);
    tried++;
    if (tried <= SKIP) continue;
    writeFileSync(join(copy, path), text.slice(0, from) + by + text.slice(to));
    const test = noticedBy(path);
    writeFileSync(join(copy, path), text);
    if (BUNDLED.test(path)) build('build-guest.mjs');
    if (/^src\/(cli|workers)\//.test(path)) build('build-node.mjs');
    const line = text.slice(0, from).split('\n').length;
    const folder = folderOf(path);
    const { all = 0, good = 0 } = report.get(folder) ?? {};
    report.set(folder, { all: all + 1, good: good + (test === null ? 0 : 1) });
    const where = `${path}:${line} ${what}`;
    console.log(
      `${tried}/${PLACES} ${test === null ? 'SURVIVED' : 'noticed '} ${where}${test === null ? '' : `, by ${test}`}`,
    );
    if (test === null) survived.push({ number: tried, path, from, to, by, what: where });
    writeFileSync(KEPT, JSON.stringify({ report: [...report], survived }));
  }
} else {
  // The tests in the browser take an hour of their own, so they go on with what the others left.
  if (!existsSync(KEPT)) fail(`${KEPT} is not there: run it without --browser first.`);
  const kept = JSON.parse(readFileSync(KEPT, 'utf8'));
  for (const [folder, counts] of kept.report) report.set(folder, counts);
  const noticed = inBrowser(
    copy,
    { ...process.env, ...DATABASE, DATABASE_URL: url },
    kept.survived.filter(({ path }) => IN_APP.test(path)),
    (options.specs ?? '').split(',').filter(Boolean),
  );
  for (const one of kept.survived)
    if (noticed.has(one.number)) report.get(folderOf(one.path)).good++;
    else survived.push(one);
}
for (const [folder, { all, good }] of [...report].sort())
  console.log(`${folder}: ${good} of ${all}`);
const counts = [...report.values()];
const sum = (what) => counts.reduce((before, one) => before + one[what], 0);
say(`${sum('good')} of ${sum('all')} changes were noticed`);
for (const { what } of survived) console.log(`not noticed: ${what}`);
