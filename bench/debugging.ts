/**
 * What looking into a session costs: a jump to a moment of a session of 200 steps in a form of 200 fields, an answer to
 * why, filtering a tape of 10,000 entries, doing the steps again after an edit, and tracing against not tracing. All in
 * one run, in the machine as the browser's worker has it.
 */
import { decide } from '../src/core/debugging/decide';
import { ALL, listed } from '../src/core/debugging/filter';
import { groundOver } from '../src/core/debugging/ground';
import { compileDetailed } from '../src/core/language/compile';
import { materialOf } from '../src/core/language/material';
import type { Wanted } from '../src/core/sandbox/inspector';
import { startModule } from '../src/core/sandbox/quickjs';
import { Sandbox } from '../src/core/sandbox/sandbox';
import type { Material } from '../src/core/session/material';
import type { Opening, TimedStep } from '../src/core/session/step';
import { Tape } from '../src/core/tape/tape';
import { entryInWords, namesFor } from '../src/core/tape/words';
import { largeScript, largeSurface, others } from '../tests/support/large-form';

const { form } = largeSurface;
const sources = [largeScript, ...others];
const opening: Opening = {
  person: { key: 'mira', name: 'Mira Oldane', roles: ['clerk'] },
  record: null,
  launch: {},
  clock: 0,
  seed: 1,
  newId: 'new',
};

const STEPS = 200;
const KEYS = ['own', 'none', 'tug'];
const steps: TimedStep[] = Array.from({ length: STEPS }, (_, i) =>
  i % 2 === 0
    ? { set: `f${(i / 2) % 20}_0`, to: KEYS[i % 3]! }
    : { set: `f${((i - 1) / 2) % 20}_7`, to: i * 3 },
);

const materialIn = (mode: 'traced' | 'untraced'): Material =>
  materialOf(form, { tables: [], services: [] }, sources, mode);

const detailed = sources.map((source) => compileDetailed(source));
const sites = new Map(detailed.map((one) => [one.script.name, one.sites]));
const inDetail: Material = {
  ...materialIn('traced'),
  scripts: detailed.map(({ script }) => script),
};

const started = await startModule();
const machine = (material: Material): Sandbox => {
  const sandbox = new Sandbox(started, { temporal: false });
  sandbox.load(material);
  return sandbox;
};

const looking = machine(inDetail);
const inspect = (wanted: Partial<Wanted>, count = STEPS) =>
  looking.inspect(opening, steps.slice(0, count), {
    runs: [],
    moments: [],
    turned: [],
    asks: false,
    answers: false,
    ...wanted,
  });

const { answers } = inspect({ answers: true });
const tapes = answers.map(({ tape }) => tape);
const tape = new Tape(tapes.flat());
const runs = tape.entries.filter(({ type }) => type === 'run');

interface Measured {
  what: string;
  median: number;
  p95: number;
}

/** Real milliseconds of each of so many times. */
async function measure(
  what: string,
  times: number,
  work: (i: number) => unknown,
): Promise<Measured> {
  const took: number[] = [];
  for (let i = -5; i < times; i++) {
    const from = performance.now();
    await work(Math.max(0, i));
    if (i >= 0) took.push(performance.now() - from);
  }
  took.sort((a, b) => a - b);
  const at = (share: number) => took[Math.min(took.length - 1, Math.floor(share * took.length))]!;
  return { what, median: at(0.5), p95: at(0.95) };
}

const everywhere = (i: number) => runs[(i * 7919) % runs.length]!;
const untraced = machine(materialIn('untraced'));
const traced = machine(materialIn('traced'));
const play = (sandbox: Sandbox) => {
  sandbox.open(opening);
  for (const step of steps) sandbox.step(step);
};

const jump = await measure('a jump to a moment', 100, (i) => {
  const run = everywhere(i);
  const step = tapes.findIndex((entries) => entries.at(-1)!.n >= run.n);
  inspect({ runs: [run.n], moments: [{ entry: run.n, detail: null }] }, step);
});

const asked = tape.entries.filter((entry) => entry.type === 'effect' && entry.by === 'script');
const why = await measure('why, at the end', 40, (i) => {
  const effect = asked[(i * 31) % asked.length]! as (typeof asked)[number] & {
    part: string;
    aspect: string;
  };
  return decide(
    groundOver({ form, tape, sites }, (wanted) => Promise.resolve(inspect(wanted))),
    { part: effect.part, aspect: effect.aspect, before: null },
  );
});

const long = new Tape(
  Array.from({ length: Math.ceil(10_000 / tape.entries.length) }, (_, round) =>
    tape.entries.map((entry) => ({
      ...entry,
      n: entry.n + round * tape.entries.length,
      cause: entry.cause === null ? null : entry.cause + round * tape.entries.length,
    })),
  ).flat() as never,
);
const names = namesFor(form, [], []);
const filtered = await measure(`a tape of ${long.entries.length} entries filtered`, 30, (i) =>
  listed(long, i % 2 === 0 ? { ...ALL, part: 'f3_2' } : { ...ALL, words: 'hidden' }, (entry) =>
    entryInWords(entry, names, 'Mira'),
  ),
);

const compiled = materialIn('traced');
const again = await measure('loaded and done again after an edit, compiled', 40, () => {
  traced.load(compiled);
  play(traced);
});
const without = await measure('the steps done again, untraced', 40, () => play(untraced));
const withTrace = await measure('the same, traced', 40, () => play(traced));

console.log(
  `\nLooking into a session: ${STEPS} steps, ${tape.entries.length} entries, ${runs.length} runs, in a form of 200 fields`,
);
console.table(
  [jump, why, filtered, again, without, withTrace].map(({ what, median, p95 }) => ({
    what,
    'median (ms)': Number(median.toFixed(1)),
    'p95 (ms)': Number(p95.toFixed(1)),
    'to all steps untraced': Number((median / without.median).toFixed(2)),
  })),
);
console.log(
  `aims: a jump under 50 ms at p95 (${jump.p95.toFixed(1)}), replay under 100 ms (${again.p95.toFixed(1)}), tracing at most 3x (${(withTrace.median / without.median).toFixed(2)}x)`,
);
