// npm run mutate-sources -- [--places 60] [--seed 1] [--only src/ui] [--skip 20]: are our own tests any good? Changes one
// place of src at a time, runs the nearest tests and puts it back; says which changes nobody noticed, by folder. In a copy
// of the tree, so that an interruption leaves nothing changed, and that one can go on with `--skip`. Takes an hour; not
// part of any other command. Tests in the browser are not run: what only they would notice counts as not noticed.
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import ts from 'typescript-classic';
import {
  buildParts,
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
/** What runs from a bundle, which is made anew where it changes. */
const BUNDLED = /^src\/core\/(guest|wire|form)\//;

/** Numbers from 0 to 1, the same for the same seed (mulberry32, as published by its author into the public domain). */
let state = Number(options.seed ?? 1) >>> 0;
function random() {
  state = (state + 0x6d2b79f5) >>> 0;
  let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
  mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
}
const pick = (list) => list[Math.floor(random() * list.length)];

const OTHER = new Map([
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
]);

/** The places of a source that can be changed, each with what it becomes. */
function placesIn(text, path) {
  const file = ts.createSourceFile(
    path,
    text,
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const found = [];
  const add = (node, by, what) =>
    found.push({ from: node.getStart(file), to: node.getEnd(), by, what });
  const visit = (node) => {
    // Types, looks and texts are no decisions.
    if (
      ts.isTypeNode(node) ||
      (ts.isJsxAttribute(node) && !ts.isJsxExpression(node.initializer ?? node))
    )
      return;
    if (ts.isBinaryExpression(node)) {
      const by = OTHER.get(node.operatorToken.kind);
      const isText = [node.left, node.right].some(
        (side) => ts.isStringLiteral(side) || ts.isTemplateExpression(side),
      );
      if (by !== undefined && !(isText && (by === '-' || by === '+')))
        add(node.operatorToken, by, `${node.operatorToken.getText(file)} → ${by}`);
    }
    if (
      ts.isIfStatement(node) &&
      node.elseStatement === undefined &&
      ts.isReturnStatement(node.thenStatement)
    )
      add(node.expression, 'false', 'an early return is left out');
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, node.operand.getText(file), '! is left out');
    if (
      ts.isExpressionStatement(node) &&
      (ts.isCallExpression(node.expression) || ts.isBinaryExpression(node.expression))
    )
      add(node, ';', 'a statement is left out');
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

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

needPackages([packages.postgresql]);
needModules();
buildParts();
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
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
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
    (near.length > 0 ? failing(['--project=unit', ...near]) : null) ??
    related('unit', 'conformance') ??
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
for (let tried = 0; tried < PLACES;) {
  const path = pick(sources);
  const text = readFileSync(join(copy, path), 'utf8');
  const places = placesIn(text, path);
  if (places.length === 0) continue;
  const place = pick(places);
  tried++;
  if (tried <= SKIP) continue;
  writeFileSync(join(copy, path), text.slice(0, place.from) + place.by + text.slice(place.to));
  const by = noticedBy(path);
  writeFileSync(join(copy, path), text);
  if (BUNDLED.test(path)) build('build-guest.mjs');
  if (/^src\/(cli|workers)\//.test(path)) build('build-node.mjs');
  const line = text.slice(0, place.from).split('\n').length;
  const folder = folderOf(path);
  const { all = 0, good = 0 } = report.get(folder) ?? {};
  report.set(folder, { all: all + 1, good: good + (by === null ? 0 : 1) });
  const what = `${path}:${line} ${place.what}`;
  console.log(
    `${tried}/${PLACES} ${by === null ? 'SURVIVED' : 'noticed '} ${what}${by === null ? '' : `, by ${by}`}`,
  );
  if (by === null) survived.push(what);
}
for (const [folder, { all, good }] of [...report].sort())
  console.log(`${folder}: ${good} of ${all}`);
const good = [...report.values()].reduce((sum, one) => sum + one.good, 0);
say(`${good} of ${PLACES - SKIP} changes were noticed`);
for (const one of survived) console.log(`not noticed: ${one}`);
