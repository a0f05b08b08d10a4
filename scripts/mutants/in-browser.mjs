// What tests in the browser notice of changes that no other test did. A build for each would take hours: all of them go
// into one app, each behind a condition that is asked for while it runs (tests/support/mutants.ts).
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { copyDatabase, dropAll, fail, prepareDatabase, say, suitesWithin } from '../steps.mjs';
import { placesIn } from './places.mjs';

const TEMPLATE = 'tavro_demo';
/** What an app consists of, but for what runs in the sandbox, which can ask nobody. */
export const IN_APP = /^src\/(ui|app|workers|server|core\/(?!guest\/))/;

/** The changes of one build: of two in the same expression one has to wait for the next. */
function together(changes) {
  const taken = [];
  const later = [];
  for (const one of changes) {
    const clashes = taken.some(
      (other) => other.path === one.path && other.start < one.end && one.start < other.end,
    );
    (clashes ? later : taken).push(one);
  }
  return [taken, later];
}

/**
 * The changes that a test in the browser notices, by their numbers, each with the test. `copy` is a tree of its
 * own; of all tests only those in `specs` are tried, where it names any.
 */
export function inBrowser(copy, env, all, specs) {
  const noticed = new Map();
  let left = all.map((one) => ({ ...placeOf(copy, one), ...one }));
  while (left.length > 0) {
    const [now, later] = together(left);
    const before = now.map(({ path }) => [path, readFileSync(join(copy, path), 'utf8')]);
    // From the end of each file, so that what stands before keeps its place.
    for (const { path, start, end, switched, number } of now.toSorted(
      (a, b) => b.start - a.start,
    )) {
      const text = readFileSync(join(copy, path), 'utf8');
      const condition = `(globalThis as any).__tavroMutant?.(${number})`;
      writeFileSync(join(copy, path), text.slice(0, start) + switched(condition) + text.slice(end));
    }
    say(`building the app with ${now.length} changes in it`);
    if (spawnSync('node', ['scripts/build-app.mjs'], { cwd: copy, stdio: 'inherit' }).status !== 0)
      fail('the app with the changes in it could not be built');
    for (const [number, test] of tried(copy, env, now, specs)) noticed.set(number, test);
    for (const [path, text] of before.toReversed()) writeFileSync(join(copy, path), text);
    left = later;
  }
  return noticed;
}

function placeOf(copy, { path, from, to, by }) {
  return placesIn(readFileSync(join(copy, path), 'utf8'), path).find(
    (one) => one.from === from && one.to === to && one.by === by,
  );
}

function tried(copy, env, changes, specs) {
  dropAll(env.DATABASE_URL);
  prepareDatabase(env.DATABASE_URL);
  copyDatabase(env.DATABASE_URL, TEMPLATE);
  const REACHED = join(copy, 'reached.jsonl');
  rmSync(REACHED, { force: true });
  say('all tests in the browser, with no change asked for');
  playwright(copy, { ...env, TAVRO_REACHED: REACHED, TAVRO_MUTANT: '0' }, [
    ...specs,
    '--retries=1',
  ]);
  const reached = existsSync(REACHED)
    ? readFileSync(REACHED, 'utf8')
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line))
    : [];
  const noticed = new Map();
  for (const { number, what } of changes) {
    const tests = [
      ...new Set(reached.filter((one) => one.number === number).map(({ test }) => test)),
    ];
    // Twice, since a page may be slower than a test believes.
    const failed =
      tests.length === 0
        ? null
        : playwright(copy, { ...env, TAVRO_MUTANT: String(number) }, [
            ...tests,
            '--retries=1',
            '--max-failures=1',
            '--timeout=90000',
          ]);
    if (failed !== null) noticed.set(number, failed);
    console.log(
      `${failed === null ? 'SURVIVED' : 'noticed '} ${what}, of ${tests.length} tests${failed === null ? '' : ` by ${failed}`}`,
    );
  }
  return noticed;
}

/** Runs tests; the first that failed, or null. */
function playwright(copy, env, args) {
  const results = join(copy, 'test-results/e2e.json');
  rmSync(results, { force: true });
  spawnSync('node_modules/.bin/playwright', ['test', ...args], {
    cwd: copy,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...env, TZ: 'UTC', TAVRO_E2E_TEMPLATE: TEMPLATE },
  });
  if (!existsSync(results)) fail('the tests in the browser could not start');
  const failed = JSON.parse(readFileSync(results, 'utf8'))
    .suites.flatMap(suitesWithin)
    .flatMap(({ file, specs }) => specs.map((spec) => ({ ...spec, file })))
    .find(({ tests }) => tests.some(({ status }) => status === 'unexpected'));
  return failed === undefined ? null : `${failed.file}:${failed.line} ${failed.title}`;
}
