/** `tavro check`: the problems of a workspace as the app lists them, each as `file:line:column: text`. */
import {
  inWeight,
  problemsInScenarios,
  problemsInSources,
  type Problem,
} from '../core/problems/problems';
import { formsOf, load, newEngine, open, type Call } from './call';

export async function check(call: Call): Promise<number> {
  const workspace = open(call);
  const [{ FormLanguage }, { libs }] = await Promise.all([
    import('../core/language/service'),
    import('../core/language/generated/libs'),
  ]);
  const engine = newEngine();
  const problems: Problem[] = [];
  for (const entry of formsOf(call, workspace)) {
    const { form, behaviours, scenarios, records } = entry;
    const language = new FormLanguage(libs);
    language.surround({ ...workspace, form });
    problems.push(...problemsInSources(form.name, behaviours, language));
    if (scenarios.length === 0) continue;
    await load(engine, workspace, entry, 'untraced');
    problems.push(
      ...(await problemsInScenarios(
        form,
        scenarios,
        workspace,
        { people: workspace.people, records, forms: workspace.forms },
        (opening, steps) => engine.play(opening, steps),
      )),
    );
  }
  engine.close();
  for (const problem of inWeight(problems))
    process.stdout.write(
      `${placeOf(call.folder, problem)}: ${problem.severity}: ${problem.says} (${problem.code})\n`,
    );
  process.stdout.write(problems.length === 0 ? 'nothing found\n' : `${problems.length} found\n`);
  return problems.length === 0 ? 0 : 1;
}

function placeOf(folder: string, { form, at }: Problem): string {
  const path = `${folder}/forms/${form}`;
  switch (at.is) {
    case 'behaviour':
      return `${path}/behaviours/${at.name}:${at.line}:${at.column}`;
    case 'form':
      return `${path}/form.json:1:1`;
    case 'part':
      return `${path}/form.json:1:1: ${at.part}`;
    case 'scenario':
      return `${path}/scenarios/${at.name}.json:1:1: step ${at.step}`;
  }
}
