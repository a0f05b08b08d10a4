/**
 * What comparing costs: filling-ins of the demo's largest form replayed on two versions, in seconds of one core's time for
 * 10,000; and what invariants add to a step, as ratios in one run.
 */
import { changeBetween } from '../src/core/compare/change';
import { Replaying, type DoneByPeople } from '../src/core/compare/replayed';
import type { Version } from '../src/core/compare/version';
import { Checkpoints } from '../src/core/explore/checkpoints';
import { parentsOf } from '../src/core/explore/ground';
import { mentionsOf } from '../src/core/explore/mentions';
import { explored } from '../src/core/explore/phases';
import { materialOf } from '../src/core/language/material';
import { fieldsOf } from '../src/core/form/fields';
import { DEFAULT_CLOCK } from '../src/core/scenario/opening';
import { takingPart, type Source } from '../src/core/script/header';
import { scriptsOf } from '../src/core/script/of-form';
import type { Opening, Step } from '../src/core/session/step';
import { readWorkspace } from '../src/core/workspace/workspace';
import { readFolder } from '../src/workers/files';
import { formWith, number, yesNo } from '../tests/support/forms';
import { ownStageOf } from '../tests/support/stage';

const ALL = 10_000;
const PLAYED = 1000;

/** Seconds of processor time that this process has used. */
const used = () => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1e6;
};

const demo = readWorkspace(readFolder('demo'));
const largest = demo.forms.toSorted(
  (a, b) => JSON.stringify(b.form).length - JSON.stringify(a.form).length,
)[0]!;

async function versionOf(sources: readonly Source[]): Promise<Version> {
  const { form, records } = largest;
  const { tables, services, people } = demo;
  return {
    ground: {
      form,
      tables,
      services,
      people,
      records,
      parents: parentsOf(form.name, demo.forms),
      clock: Date.parse(DEFAULT_CLOCK),
    },
    mentions: mentionsOf(takingPart([...sources])),
    stage: await ownStageOf(materialOf(form, demo, sources, 'traced')),
    sources,
  };
}

/** What people do: the longer sessions of a search, with a submission at the end. */
function doneByPeople({ ground, mentions, stage }: Version): DoneByPeople[] {
  const done: DoneByPeople[] = [];
  const limits = {
    seed: 1,
    sessions: 3 * PLAYED,
    onPlayed: ({ opening }: { opening: Opening }, _: unknown, steps: readonly Step[]) => {
      if (steps.length >= 10 && done.length < PLAYED)
        done.push({ opening, steps: [...steps, { submit: true }] });
    },
  };
  explored(ground, mentions, stage, limits, new Checkpoints());
  return done;
}

async function replaying(): Promise<void> {
  const sources = scriptsOf(largest.form, largest.behaviours, demo.shared);
  const edited = sources.map((source) =>
    source.name === '20-pilot.ts'
      ? { name: source.name, text: source.text.replace('=== "own"', '!== "own"') }
      : source,
  );
  if (changeBetween(takingPart(sources), takingPart(edited)).running.after.length === 0)
    throw new Error('nothing differs');
  const done = doneByPeople(await versionOf(sources));
  const steps = done.reduce((sum, one) => sum + one.steps.length, 0);
  const playedIn = async (its: readonly Source[]) => ({
    form: largest.form,
    stage: await ownStageOf({
      ...materialOf(largest.form, demo, its, 'traced'),
      traced: false,
      invariants: false,
    }),
  });
  const both = new Replaying({ before: await playedIn(sources), after: await playedIn(edited) });
  for (const one of done.slice(0, 100)) both.differences(one);
  const from = used();
  const differing = done.filter((one) => both.differences(one).length > 0).length;
  const each = (used() - from) / done.length;
  console.log(
    `${largest.form.name}: ${done.length} filling-ins of ${(steps / done.length).toFixed(0)} steps in the middle replayed on two versions, ${differing} end differently; ${(each * 1000).toFixed(1)} ms each, so ${ALL.toLocaleString('en')} take ${(each * ALL).toFixed(0)} s of one core, ${((each * ALL) / 2).toFixed(0)} s of two`,
  );
}

const FORM = formWith([number('a'), number('b'), yesNo('c')]);
const RULE = 'keep(() => { fields.c.value = (fields.a.value ?? 0) > 5; });\n';
const many = (count: number, of: string) =>
  Array.from(
    { length: count },
    (_, i) => `always("${of} ${i}", () => (fields.${of}.value ?? 0) < ${1000 + i});\n`,
  ).join('');

/** What a step takes with each of these scripts: milliseconds, in turns so that all meet the same machine. */
async function stepsWith(scripts: readonly string[]): Promise<number[]> {
  const stages = await Promise.all(
    scripts.map((text) =>
      ownStageOf(
        materialOf(FORM, { tables: [], services: [] }, [{ name: '10-a.ts', text }], 'untraced'),
      ),
    ),
  );
  const opening: Opening = {
    person: { key: 'ida', name: 'Ida', roles: [] },
    record: null,
    launch: {},
    clock: 0,
    seed: 1,
    newId: 'new',
  };
  const took = scripts.map(() => Infinity);
  for (let round = 0; round < 12; round++)
    for (const [i, stage] of stages.entries()) {
      stage.open(opening);
      const from = performance.now();
      for (let n = 0; n < 2000; n++) stage.do({ set: 'a', to: n % 10 });
      took[i] = Math.min(took[i]!, (performance.now() - from) / 2000);
    }
  return took;
}

/** 100 of them over the fields of the demo's largest form, each of two fields, and what people do in it. */
async function spread(): Promise<void> {
  const sources = scriptsOf(largest.form, largest.behaviours, demo.shared);
  const names = fieldsOf(largest.form).map(({ name }) => name);
  const text = Array.from({ length: 100 }, (_, i) => {
    const [one, other] = [names[i % names.length]!, names[(i * 7 + 3) % names.length]!];
    return `always("spread ${i}", () => fields.${one}.shown || fields.${other}.value === null || true);\n`;
  }).join('');
  const done = doneByPeople(await versionOf(sources)).slice(0, 200);
  const stages = await Promise.all(
    [sources, [...sources, { name: '99-spread.ts', text }]].map(async (its) =>
      ownStageOf({ ...materialOf(largest.form, demo, its, 'traced'), traced: false }),
    ),
  );
  const took = [Infinity, Infinity];
  for (let round = 0; round < 4; round++)
    for (const [i, stage] of stages.entries()) {
      let all = 0;
      for (const { opening, steps } of done) {
        stage.open(opening);
        const from = performance.now();
        for (const step of steps) stage.do(step);
        all += performance.now() - from;
      }
      took[i] = Math.min(took[i]!, all);
    }
  console.log(
    `${largest.form.name}: a step takes ${(took[1]! / took[0]!).toFixed(2)} times as long with 100 invariants over its ${names.length} fields`,
  );
}

async function invariants(): Promise<void> {
  const [none, untouched, touched] = await stepsWith([
    RULE,
    RULE + many(100, 'b'),
    RULE + many(100, 'a'),
  ]);
  console.log(
    `a step takes ${(untouched! / none!).toFixed(2)} times as long with 100 invariants that read nothing of it, ${(touched! / none!).toFixed(2)} times with 100 that do (${(none! * 1000).toFixed(0)}, ${(untouched! * 1000).toFixed(0)} and ${(touched! * 1000).toFixed(0)} µs)`,
  );
}

await replaying();
await spread();
await invariants();
