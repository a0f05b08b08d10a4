/** Checking a whole workspace: sources, parts and scenarios of every form, as the command line does. */
import { libs } from '../core/language/generated/libs';
import { materialOf } from '../core/language/material';
import { FormLanguage } from '../core/language/service';
import { inWeight, problemsInScenarios, problemsInSources, type Problem } from '../core/problems/problems';
import { engine } from './fillings';
import { readBehaviours, readForms, readHead, readParents, readRecords, readScenarios, readServices, readTables } from './store';

/** What was found last, with what it was found in. */
let kept: { of: string; problems: Problem[] } | null = null;

export async function workspaceProblems(): Promise<Problem[]> {
  const [head, forms, tables, services] = await Promise.all([readHead(), readForms(), readTables(), readServices()]);
  const all = await Promise.all(
    forms.map(async (form) => {
      const [behaviours, scenarios, records, parents] = await Promise.all([readBehaviours(form.name), readScenarios(form.name), readRecords(form.name), readParents(form.name)]);
      return { form, behaviours, scenarios, records: records.map(({ id, values }) => ({ id, values })), parents };
    }),
  );
  const of = JSON.stringify([head, tables, services, all]);
  if (kept?.of === of) return kept.problems;
  const problems: Problem[] = [];
  for (const { form, behaviours, scenarios, records, parents } of all) {
    const language = new FormLanguage(libs);
    language.surround({ form, tables, services, roles: head.roles });
    problems.push(...problemsInSources(form.name, behaviours, language));
    const material = materialOf(form, { tables, services }, behaviours, 'untraced');
    await engine().load(material);
    problems.push(...(await problemsInScenarios(form, scenarios, { tables }, { people: head.people, records, forms: parents }, (opening, steps) => engine().play(opening, steps))));
  }
  kept = { of, problems: inWeight(problems) };
  return kept.problems;
}
