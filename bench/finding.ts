/**
 * What the search for faults costs: sessions and steps a second on the demo's forms, an opening in steps, time to the first
 * finding of each fault of the corpus, and what a second process adds. Processor time of one core, since other work may
 * share the machine.
 */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { mentionsOf } from '../src/core/explore/mentions';
import { parentsOf, type Ground, type Stage } from '../src/core/explore/ground';
import { search, type Searched } from '../src/core/explore/search';
import type { Form } from '../src/core/form/definition';
import { materialOf } from '../src/core/language/material';
import { DEFAULT_CLOCK } from '../src/core/scenario/opening';
import { takingPart, type Source } from '../src/core/script/header';
import { scriptsOf } from '../src/core/script/of-form';
import { readWorkspace } from '../src/core/workspace/workspace';
import { readFolder } from '../src/workers/files';
import { languageCalls } from '../src/workers/language-serve';
import { faults } from '../tests/conformance/finding/corpus';
import {
  FORMS,
  PARENTS,
  PEOPLE,
  RECORDS,
  SERVICES,
  TABLES,
} from '../tests/conformance/finding/forms';
import { largeSurface, others, typedOnce } from '../tests/support/large-form';
import { stageOf } from '../tests/support/stage';

/** Seconds of processor time that this process has used. */
const used = () => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1e6;
};

interface Subject {
  ground: Ground;
  sources: readonly Source[];
}

const clock = Date.parse(DEFAULT_CLOCK);
const demo = readWorkspace(readFolder('demo'));
const ofDemo: readonly (Subject & { name: string })[] = demo.forms.map((entry) => ({
  name: entry.form.name,
  ground: {
    form: entry.form,
    tables: demo.tables,
    services: demo.services,
    people: demo.people,
    records: entry.records.map(({ id, values }) => ({ id, values })),
    parents: parentsOf(entry.form.name, demo.forms),
    clock,
  },
  sources: scriptsOf(entry.form, entry.behaviours, demo.shared),
}));

async function stageFor({ ground, sources }: Subject) {
  const { form, tables, services } = ground;
  return stageOf(materialOf(form, { tables, services }, sources, 'traced'));
}

interface How {
  until?: (one: { findings: Searched['findings'] }) => boolean;
  on?: (machine: Stage) => Stage;
}

async function searched(
  subject: Subject,
  sessions: number,
  { until = () => false, on = (machine) => machine }: How = {},
) {
  const stage = on(await stageFor(subject));
  const mentions = mentionsOf(takingPart([...subject.sources]));
  const from = used();
  const done = search(subject.ground, mentions, stage, {
    seed: 1,
    sessions,
    goOn: (_, found) => !until({ findings: found() }),
  });
  return { ...done, seconds: used() - from };
}

const quantile = (numbers: readonly number[], share: number) =>
  numbers.toSorted((a, b) => a - b)[
    Math.min(numbers.length - 1, Math.floor(numbers.length * share))
  ]!;

/** The machine without checkpoints, so that every session is played from its opening. */
const replaying = (machine: Stage): Stage => ({ ...machine, checkpoint: () => null });

/** What openings and steps of a search take in the middle, each by itself: milliseconds. */
async function openingAndStep(subject: Subject): Promise<{ opening: number; step: number }> {
  const took = { opening: [] as number[], step: [] as number[] };
  const timed = <T>(what: number[], work: () => T): T => {
    const from = performance.now();
    const done = work();
    what.push(performance.now() - from);
    return done;
  };
  await searched(subject, 300, {
    on: (machine) => ({
      ...machine,
      open: (opening) => timed(took.opening, () => machine.open(opening)),
      do: (step) => timed(took.step, () => machine.do(step)),
    }),
  });
  return { opening: quantile(took.opening, 0.5), step: quantile(took.step, 0.5) };
}

async function throughput(): Promise<void> {
  for (const subject of ofDemo) {
    // Once before, so that neither pays for compiling what both run.
    await searched(subject, 300);
    const replayed = await searched(subject, 1000, { on: replaying });
    const { sessions, steps, seconds } = await searched(subject, 1000);
    const { opening, step } = await openingAndStep(subject);
    console.log(
      `${subject.name}: ${Math.round(sessions / seconds)} sessions, ${Math.round(steps / seconds)} steps a second, ${(replayed.seconds / seconds).toFixed(1)} times as many as with every session played from its opening; an opening takes as long as ${(opening / step).toFixed(1)} steps (${opening.toFixed(2)} ms, ${step.toFixed(2)} ms)`,
    );
  }
}

/** Each fault of the corpus that use can show is a search of its own, which ends with its first finding. */
async function firstFindings(): Promise<void> {
  const times: number[] = [];
  let missed = 0;
  const byUse = faults.filter(({ shows }) => shows === 'use');
  for (const { form, faulty } of byUse) {
    const subject: Subject = {
      ground: {
        form: FORMS[form] as Form,
        tables: TABLES,
        services: SERVICES,
        people: PEOPLE,
        records: RECORDS[form] ?? [],
        parents: PARENTS[form] ?? [],
        clock,
      },
      sources: [{ name: 'x.ts', text: `/** X: x. */\n${faulty}\n` }],
    };
    const isFound = ({ findings }: { findings: Searched['findings'] }) =>
      findings.some(({ level }) => level === 'wrong');
    const done = await searched(subject, 4000, { until: isFound });
    if (isFound(done)) times.push(done.seconds);
    else missed++;
  }
  console.log(
    `first finding of ${times.length} faults: median ${quantile(times, 0.5).toFixed(2)} s, p95 ${quantile(times, 0.95).toFixed(2)} s; ${missed} not found`,
  );
}

/** The same work in one process and in two at once, by the clock: both have to be let run. */
function scaling(work: 'searches' | 'arithmetic'): void {
  const here = fileURLToPath(import.meta.url);
  const run = (processes: number) => {
    const from = performance.now();
    const one = `node ${here} --one ${work} &`;
    spawnSync('bash', ['-c', `${one.repeat(processes)} wait`], {
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    return (performance.now() - from) / 1000;
  };
  const [one, two] = [run(1), run(2)];
  console.log(
    `two processes do ${((2 * one) / two).toFixed(2)} times the ${work} of one in the same time (${one.toFixed(1)} s, ${two.toFixed(1)} s)`,
  );
}

const KEYS = 60;

/** From a key to its diagnostics, in the middle and at the 95th percentile, in milliseconds. */
function keys(): { median: number; p95: number } {
  const worker = languageCalls();
  worker.surround(largeSurface);
  for (const source of others) worker.put(source);
  const times: number[] = [];
  for (let i = 0; i < 10 + KEYS; i++) {
    const source = typedOnce(i);
    const from = performance.now();
    worker.diagnose(source);
    // Warm from the tenth on.
    if (i >= 10) times.push(performance.now() - from);
  }
  return { median: quantile(times, 0.5), p95: quantile(times, 0.95) };
}

/** A key without a search and beside one that goes on; that of a page ends at a key. */
async function typing(): Promise<void> {
  const alone = keys();
  const beside = spawn('node', [fileURLToPath(import.meta.url), 'searches'], { stdio: 'pipe' });
  await once(beside.stdout, 'data');
  const both = keys();
  const isBeside = beside.exitCode === null;
  beside.kill();
  if (!isBeside) throw new Error('the search ended before the keys did');
  const inWords = ({ median, p95 }: typeof alone) =>
    `${median.toFixed(1)} ms, p95 ${p95.toFixed(1)} ms`;
  console.log(
    `a key is checked in ${inWords(alone)} alone, in ${inWords(both)} beside a search: ${(both.median / alone.median).toFixed(2)} times as long`,
  );
}

/** Work that needs no memory, by which what the machine itself has to spare is known. */
function arithmetic(): number {
  let sum = 0;
  for (let i = 0; i < 2e9; i++) sum += i % 7;
  return sum;
}

if (process.argv.includes('searches')) {
  console.log('searching');
  for (const subject of ofDemo) await searched(subject, 1000);
} else if (process.argv.includes('arithmetic')) {
  arithmetic();
} else {
  await throughput();
  await firstFindings();
  scaling('searches');
  scaling('arithmetic');
  await typing();
}
