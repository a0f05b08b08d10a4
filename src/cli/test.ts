/** `tavro test`: runs the scenarios of a workspace. */
import { writeFileSync } from 'node:fs';
import { runScenario, type ScenarioResult } from '../core/scenario/run';
import { Coverage } from '../core/tape/coverage';
import { CallFault, formsOf, load, newEngine, open, type Call } from './call';
import { reporters, type Outcome } from './reporters';

export async function test(call: Call): Promise<number> {
  const report = reporters[call.reporter ?? 'spec'];
  if (report === undefined)
    throw new CallFault(
      `there is no reporter "${call.reporter}". There is ${Object.keys(reporters).join(', ')}.`,
    );
  const workspace = open(call);
  const engine = newEngine();
  const outcomes: Outcome[] = [];
  let lcov = '';
  for (const entry of formsOf(call, workspace)) {
    const wanted = entry.scenarios.filter(
      ({ name }) => call.scenario === undefined || name === call.scenario,
    );
    if (wanted.length === 0) continue;
    // Bulk work runs untraced; lines are counted from tapes.
    const scripts = await load(
      engine,
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
    const folder = `${call.folder}/forms/${entry.form.name}/behaviours`;
    lcov += coverage.lcov(
      (behaviour) =>
        `${folder}/${entry.behaviours.find(({ name }) => name.replace(/\.[jt]s$/, '') === behaviour)!.name}`,
    );
  }
  engine.close();
  if (call.coverage !== undefined) writeFileSync(call.coverage, lcov);
  if (call.scenario !== undefined && outcomes.length === 0)
    throw new CallFault(`there is no scenario "${call.scenario}".`);
  process.stdout.write(report(outcomes));
  return outcomes.every((outcome) => outcome.passed) ? 0 : 1;
}
