/** `tavro test`: runs the scenarios of a workspace. */
import { runScenario, type ScenarioResult } from '../core/scenario/run';
import { CallFault, formsOf, load, newEngine, open, type Call } from './call';
import { reporters, type Outcome } from './reporters';

export async function test(call: Call): Promise<number> {
  const report = reporters[call.reporter ?? 'spec'];
  if (report === undefined) throw new CallFault(`there is no reporter "${call.reporter}". There is ${Object.keys(reporters).join(', ')}.`);
  const workspace = open(call);
  const engine = newEngine();
  const outcomes: Outcome[] = [];
  for (const entry of formsOf(call, workspace)) {
    const wanted = entry.scenarios.filter(({ name }) => call.scenario === undefined || name === call.scenario);
    if (wanted.length === 0) continue;
    await load(engine, workspace, entry, 'untraced');
    for (const { name, scenario } of wanted) {
      const result: ScenarioResult = await runScenario(
        scenario,
        entry.form,
        workspace,
        { people: workspace.people, records: entry.records },
        (opening, steps) => engine.play(opening, steps),
      );
      outcomes.push({ form: entry.form.name, file: `${call.folder}/forms/${entry.form.name}/scenarios/${name}.json`, name, ...result });
    }
  }
  engine.close();
  if (call.scenario !== undefined && outcomes.length === 0) throw new CallFault(`there is no scenario "${call.scenario}".`);
  process.stdout.write(report(outcomes));
  return outcomes.every((outcome) => outcome.passed) ? 0 : 1;
}
