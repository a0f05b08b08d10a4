/**
 * What a keystroke costs the language worker: a behaviour of 300 lines over a form of 200 fields, among five others.
 * Against a plain full check: a fresh compiler with the same files. All in one run, so that the ratios hold.
 */
import { largeScript, largeSurface, others, typedOnce } from '../tests/support/large-form';
import { compilerCalls } from '../src/workers/compiler-serve';
import { languageCalls } from '../src/workers/language-serve';

function timed(work: () => unknown): number {
  const from = performance.now();
  work();
  return performance.now() - from;
}

const { compile } = compilerCalls();
const full: number[] = [];
const keys: number[] = [];
const completions: number[] = [];
const compiles: number[] = [];
const ROUNDS = 5;
const KEYS = 60;
for (let round = 0; round < ROUNDS; round++) {
  let worker = languageCalls();
  full.push(
    timed(() => {
      worker = languageCalls();
      worker.surround(largeSurface);
      for (const source of others) worker.put(source);
      worker.diagnose(largeScript);
    }),
  );
  for (let i = 0; i < 10; i++) worker.diagnose(typedOnce(i));
  for (let i = 10; i < 10 + KEYS; i++) {
    const source = typedOnce(i);
    keys.push(timed(() => worker.diagnose(source)));
    if (i % 4 === 0)
      completions.push(timed(() => worker.complete(source, source.text.indexOf('fields.') + 7)));
    if (i % 4 === 0) compiles.push(timed(() => compile(source)));
  }
}

const at = (times: number[], share: number) =>
  times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!;
const base = at(full, 0.5);
const row = (name: string, times: number[]) => ({
  what: name,
  'median, ms': at(times, 0.5).toFixed(1),
  'p95, ms': at(times, 0.95).toFixed(1),
  'median of a full check': (at(times, 0.5) / base).toFixed(3),
});
console.log(
  `one behaviour of ${largeScript.text.split('\n').length} lines, ${largeSurface.form.pages[0]!.sections.length * 10} fields`,
);
console.table([
  row('full check', full),
  row('keystroke to diagnostics', keys),
  row('completions', completions),
  row('compiling, in a worker of its own', compiles),
]);
