/** `tavro test`: runs the scenarios of a workspace. */
import { baseName, isOwn } from '../core/script/script-name';
import { writeFileSync } from 'node:fs';
import { runScenario, type ScenarioResult } from '../core/scenario/run';
import { Coverage } from '../core/tape/coverage';
import type { Engine } from '../core/sandbox/engine';
import { Cache } from './cache';
import { InvalidCall, formsOf, load, open, type Call, type Command, withEngine } from './call';
import { progress } from './progress';
import { WATCH, watched } from './watch';
import { reporters, type Outcome } from './reporters';

async function run(call: Call, engine: Engine): Promise<number> {
  const report = reporters[call.reporter ?? 'spec'];
  if (report === undefined)
    throw new InvalidCall(
      `there is no reporter "${call.reporter}". There is ${Object.keys(reporters).join(', ')}.`,
    );
  const workspace = open(call);
  const cache = new Cache();
  const forms = formsOf(call, workspace);
  const shown = progress('running', forms.length);
  const outcomes: Outcome[] = [];
  let lcov = '';
  for (const entry of forms) {
    shown.at(entry.form.name);
    const wanted = entry.scenarios.filter(
      ({ name }) => call.scenario === undefined || name === call.scenario,
    );
    if (wanted.length === 0) continue;
    // Bulk work runs untraced; lines are counted from tapes.
    const scripts = await load(
      engine,
      cache,
      workspace,
      entry,
      call.coverage === undefined ? 'untraced' : 'traced',
    );
    const coverage = new Coverage(scripts);
    for (const { name, scenario } of wanted) {
      const result: ScenarioResult = await runScenario(
        scenario,
        entry.form,
        workspace,
        { people: workspace.people, records: entry.records, forms: workspace.forms },
        async (opening, steps) => {
          const answers = await engine.play(opening, steps);
          for (const { tape } of answers) coverage.add(tape);
          return answers;
        },
      );
      outcomes.push({
        form: entry.form.name,
        file: `${call.folder}/forms/${entry.form.name}/scenarios/${name}.json`,
        name,
        ...result,
      });
    }
    const sources = [...entry.behaviours, ...workspace.shared];
    const fileOf = (script: string) => sources.find(({ name }) => baseName(name) === script)!.name;
    lcov += coverage.lcov((script) =>
      isOwn(script)
        ? `${call.folder}/forms/${entry.form.name}/behaviours/${fileOf(script)}`
        : `${call.folder}/${fileOf(script)}`,
    );
  }
  shown.end();
  if (call.coverage !== undefined) writeFileSync(call.coverage, lcov);
  if (call.scenario !== undefined && outcomes.length === 0)
    throw new InvalidCall(`there is no scenario "${call.scenario}".`);
  process.stdout.write(report(outcomes));
  return outcomes.every((outcome) => outcome.passed) ? 0 : 1;
}

export const test: Command = {
  says: 'Runs the scenarios.',
  options: {
    form: { value: 'FORM', says: 'only those of this form' },
    scenario: { value: 'NAME', says: 'only this one, named as its file without .json' },
    reporter: { value: 'NAME', says: `how they are told: ${Object.keys(reporters).join(', ')}` },
    coverage: { value: 'FILE', says: 'writes the lines they reached, as LCOV' },
    watch: WATCH,
  },
  run: (call) => watched(call, () => withEngine((engine) => run(call, engine))),
};
