/**
 * What the search for faults costs: sessions and steps a second on the demo's forms, time to the first finding of each
 * fault of the corpus, and what a second process adds. Processor time of one core, since other work may share the machine.
 */
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { mentionsOf } from '../src/core/explore/mentions';
import { parentsOf, type Ground } from '../src/core/explore/ground';
import { search, type Searched } from '../src/core/explore/search';
import type { Form } from '../src/core/form/definition';
import { materialOf } from '../src/core/language/material';
import { DEFAULT_CLOCK } from '../src/core/scenario/opening';
import { takingPart, type Source } from '../src/core/script/header';
import { scriptsOf } from '../src/core/script/of-form';
import { readWorkspace } from '../src/core/workspace/workspace';
import { readFolder } from '../src/workers/files';
import { faults } from '../tests/conformance/finding/corpus';
import {
  FORMS,
  PARENTS,
  PEOPLE,
  RECORDS,
  SERVICES,
  TABLES,
} from '../tests/conformance/finding/forms';
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

async function searched(
  subject: Subject,
  sessions: number,
  until: (one: { findings: Searched['findings'] }) => boolean = () => false,
  goesBack = true,
) {
  const machine = await stageFor(subject);
  const stage = goesBack ? machine : { ...machine, checkpoint: () => null };
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

async function throughput(): Promise<void> {
  for (const subject of ofDemo) {
    // Once before, so that neither pays for compiling what both run.
    await searched(subject, 300);
    const replayed = await searched(subject, 1000, () => false, false);
    const { sessions, steps, seconds } = await searched(subject, 1000);
    console.log(
      `${subject.name}: ${Math.round(sessions / seconds)} sessions, ${Math.round(steps / seconds)} steps a second, ${(replayed.seconds / seconds).toFixed(1)} times as many as with every session played from its opening`,
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
    const done = await searched(subject, 4000, isFound);
    if (isFound(done)) times.push(done.seconds);
    else missed++;
  }
  console.log(
    `first finding of ${times.length} faults: median ${quantile(times, 0.5).toFixed(2)} s, p95 ${quantile(times, 0.95).toFixed(2)} s; ${missed} not found`,
  );
}

/** The same searches in one process and in two at once, by the clock: both have to be let run. */
function scaling(): void {
  const here = fileURLToPath(import.meta.url);
  const run = (processes: number) => {
    const from = performance.now();
    spawnSync(
      'bash',
      ['-c', Array.from({ length: processes }, () => `node ${here} --one &`).join(' ') + ' wait'],
      { stdio: 'inherit' },
    );
    return (performance.now() - from) / 1000;
  };
  const [one, two] = [run(1), run(2)];
  console.log(
    `two processes do ${((2 * one) / two).toFixed(2)} times the sessions of one in the same time (${one.toFixed(1)} s, ${two.toFixed(1)} s)`,
  );
}

if (process.argv.includes('--one')) {
  for (const subject of ofDemo) await searched(subject, 400);
} else {
  await throughput();
  await firstFindings();
  scaling();
}
