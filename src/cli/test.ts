/** `tavro test`: runs the scenarios of a workspace. */
import { untilDone } from '../core/sandbox/cut-short';
import { baseName, isOwn } from '../core/script/script-name';
import { writeFileSync } from 'node:fs';
import type { Scenario } from '../core/scenario/definition';
import { openingOf } from '../core/scenario/opening';
import { runScenario, sessionAt, type ScenarioResult } from '../core/scenario/run-scenario';
import { readHeader } from '../core/script/header';
import { namesFor } from '../core/tape/words';
import { whyMissed } from '../core/testing/why-missed';
import { Coverage } from '../core/testing/coverage';
import type { Engine } from '../core/sandbox/engine';
import { Cache } from './cache';
import {
  castOf,
  InvalidCall,
  formsOf,
  load,
  open,
  reporterOf,
  type Call,
  type Command,
  withEngines,
} from './call';
import { loadDetailed } from './inspecting';
import type { Wanted } from '../core/sandbox/inspector';
import { progress } from './progress-line';
import { enginesFor } from './call';
import { spread } from '../core/testing/spread';
import type { ScenarioFile, Workspace, WorkspaceForm } from '../core/workspace/workspace';
import { WATCH, watched } from './watch';
import { reporters, type ReportedScenario } from './reporters';
import { print } from './print';

/** All that a session did, in detail. */
const EVERYTHING: Wanted = { runs: 'all', moments: [], turned: [], asks: false, answers: true };

/** One form with its scenarios that are wanted. */
interface Piece {
  entry: WorkspaceForm;
  wanted: readonly ScenarioFile[];
}

async function run(call: Call): Promise<number> {
  const report = reporterOf(call, reporters, 'spec');
  const workspace = open(call);
  const pieces = sharded(
    call.shard,
    formsOf(call, workspace).map((entry): Piece => ({
      entry,
      wanted: entry.scenarios.filter(
        ({ name }) => call.scenario === undefined || name === call.scenario,
      ),
    })),
  ).filter(({ wanted }) => wanted.length > 0);
  if (call.scenario !== undefined && pieces.length === 0)
    throw new InvalidCall(`there is no scenario "${call.scenario}".`);
  const shown = progress('running', pieces.length);
  const results = await withEngines(enginesFor(pieces.length), (engines) =>
    spread(engines, pieces, (engine, piece) => {
      shown.at(piece.entry.form.name);
      return runForm(call, workspace, engine, piece);
    }),
  );
  shown.end();
  if (call.coverage !== undefined)
    writeFileSync(call.coverage, results.map(({ lcov }) => lcov).join(''));
  const outcomes = results.flatMap((result) => result.outcomes);
  print(report(outcomes));
  return outcomes.every((outcome) => outcome.passed) ? 0 : 1;
}

/** Takes every n-th scenario, counted over all forms: `2/3` is the second of three shards. */
function sharded(shard: string | undefined, pieces: readonly Piece[]): Piece[] {
  if (shard === undefined) return [...pieces];
  const [, which, of] = /^(\d+)\/(\d+)$/.exec(shard) ?? [];
  const [place, count] = [Number(which), Number(of)];
  if (which === undefined || place < 1 || place > count)
    throw new InvalidCall(`--shard ${shard} is none: 2/3 is the second of three.`);
  let at = 0;
  return pieces.map(({ entry, wanted }) => ({
    entry,
    wanted: wanted.filter(() => at++ % count === place - 1),
  }));
}

async function runForm(
  call: Call,
  workspace: Workspace,
  engine: Engine,
  { entry, wanted }: Piece,
): Promise<{ outcomes: ReportedScenario[]; lcov: string }> {
  // Bulk work runs untraced; what is reached is counted from details.
  const cache = new Cache();
  let coverage: Coverage | null = null;
  if (call.coverage === undefined) await load(engine, cache, workspace, entry, 'untraced');
  else coverage = new Coverage((await loadDetailed(engine, cache, workspace, entry)).sites);
  const outcomes: ReportedScenario[] = [];
  for (const { name, scenario } of wanted) {
    const result = await runScenario(
      scenario,
      entry.form,
      workspace,
      castOf(workspace, entry),
      async (opening, steps) => {
        if (coverage === null) return untilDone(() => engine.play(opening, steps));
        const { answers, runs } = await engine.inspect(opening, steps, EVERYTHING);
        coverage.add(runs);
        return answers;
      },
    );
    // With coverage the scripts are compiled differently, and a run that measures needs no reasons for misses.
    if (!result.passed && coverage === null)
      await sayWhy(result, scenario, workspace, engine, entry);
    outcomes.push({
      form: entry.form.name,
      file: `${call.folder}/forms/${entry.form.name}/scenarios/${name}.json`,
      name,
      ...result,
    });
  }
  const sources = [...entry.behaviours, ...workspace.shared];
  const fileOf = (script: string) => sources.find(({ name }) => baseName(name) === script)!.name;
  const lcov = coverage?.lcov((script) =>
    isOwn(script)
      ? `${call.folder}/forms/${entry.form.name}/behaviours/${fileOf(script)}`
      : `${call.folder}/${fileOf(script)}`,
  );
  return { outcomes, lcov: lcov ?? '' };
}

/** Misses of one scenario that are told of with their reason. */
const EXPLAINED = 5;

/** Plays what failed once more, traced, and says of each miss who said what it is instead. */
async function sayWhy(
  result: ScenarioResult,
  scenario: Scenario,
  workspace: Workspace,
  engine: Engine,
  entry: WorkspaceForm,
): Promise<void> {
  const cast = castOf(workspace, entry);
  const sources = [...entry.behaviours, ...workspace.shared];
  const titles = sources.map((one) => ({ name: one.name, title: readHeader(one).title }));
  const names = namesFor(entry.form, titles, workspace.people);
  await load(engine, new Cache(), workspace, entry, 'traced');
  for (const miss of result.misses.slice(0, EXPLAINED)) {
    if (miss.part === '@open') continue;
    const { open: how, steps } = sessionAt(scenario, miss.at, { form: entry.form, cast });
    const answers = await untilDone(() => engine.play(openingOf(how, entry.form, cast), steps));
    const why = whyMissed(miss, answers, names);
    if (why !== null) miss.why = why;
  }
  await load(engine, new Cache(), workspace, entry, 'untraced');
}

export const test: Command = {
  says: 'Runs the scenarios.',
  options: {
    form: { value: 'FORM', says: 'only those of this form' },
    scenario: { value: 'NAME', says: 'only this one, named as its file without .json' },
    reporter: { value: 'NAME', says: `how they are told: ${Object.keys(reporters).join(', ')}` },
    coverage: { value: 'FILE', says: 'writes the lines they reached, as LCOV' },
    shard: { value: 'I/N', says: 'only the I-th of N parts of all scenarios' },
    watch: WATCH,
  },
  run: (call) => watched(call, run),
};
