/** `tavro check`: the problems of a workspace as the app lists them, each as `file:line:column: text`. */
import { untilDone } from '../core/sandbox/cut-short';
import * as z from 'zod';
import {
  inWeight,
  problemsInScenarios,
  problemsInSources,
  ProblemSchema,
  type Problem,
} from '../core/problems/problems';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import type { Source } from '../core/script/header';
import { scriptsOf } from '../core/script/of-form';
import { isOwn } from '../core/script/script-name';
import type { Engine } from '../core/sandbox/engine';
import { Cache } from './cache';
import { formsOf, load, open, scriptFile, type Call, type Command, withEngine } from './call';
import { progress } from './progress-line';
import { WATCH, watched } from './watch';
import { onOneLine, print } from './print';

async function run(call: Call, engine: Engine): Promise<number> {
  const workspace = open(call);
  const forms = formsOf(call, workspace);
  const cache = new Cache();
  const shown = progress('checking', forms.length);
  const problems: Problem[] = call.form === undefined ? await foundInShared(workspace, cache) : [];
  for (const entry of forms) {
    const { form, scenarios, records } = entry;
    shown.at(form.name);
    problems.push(...(await foundInSources(workspace, entry, cache)));
    if (scenarios.length === 0) continue;
    await load(engine, cache, workspace, entry, 'untraced');
    problems.push(
      ...(await problemsInScenarios(
        form,
        scenarios,
        workspace,
        { people: workspace.people, records, forms: workspace.forms, scenarios },
        (opening, steps) => untilDone(() => engine.play(opening, steps)),
      )),
    );
  }
  shown.end();
  for (const problem of inWeight(problems))
    print(
      `${placeOf(call.folder, problem)}: ${problem.severity}: ${onOneLine(problem.says)} (${problem.code})\n`,
    );
  print(problems.length === 0 ? 'nothing found\n' : `${problems.length} found\n`);
  return problems.length === 0 ? 0 : 1;
}

/**
 * What is found in the sources of a form, as it was when they, the form and what it can reach were the same. Behaviours
 * are checked against each other, so one that changed has those of its form checked again, and no other form's.
 */
async function foundInSources(
  workspace: Workspace,
  { form, behaviours }: WorkspaceForm,
  cache: Cache,
): Promise<Problem[]> {
  const { tables, services, roles } = workspace;
  const scripts = scriptsOf(form, behaviours, workspace.shared);
  return kept(cache, { form, tables, services, roles }, scripts, async () => {
    const { language } = await newLanguage();
    language.surround({ ...workspace, form });
    return problemsInSources(form.name, scripts, language);
  });
}

/** What is found in the code that forms share, likewise. */
async function foundInShared(workspace: Workspace, cache: Cache): Promise<Problem[]> {
  const { tables, services, roles, shared } = workspace;
  if (shared.length === 0 && services.length === 0) return [];
  const forms = workspace.forms.map(({ form }) => form);
  return kept(cache, { forms, tables, services, roles }, shared, async () => {
    const [{ language }, { problemsInShared }] = await Promise.all([
      newLanguage(),
      import('../core/problems/shared'),
    ]);
    return problemsInShared(shared, { forms, tables, services, roles }, language);
  });
}

async function kept(
  cache: Cache,
  surface: object,
  sources: readonly Source[],
  find: () => Promise<Problem[]>,
): Promise<Problem[]> {
  const of = [JSON.stringify(surface), ...sources.flatMap(({ name, text }) => [name, text])];
  const known = cache.read('found', of, z.array(ProblemSchema));
  if (known !== null) return known;
  const found = await find();
  cache.keep('found', of, found);
  return found;
}

async function newLanguage() {
  const [{ FormLanguage }, { libs }] = await Promise.all([
    import('../core/language/language-service'),
    import('../core/language/generated/libs'),
  ]);
  return { language: new FormLanguage(libs) };
}

export const check: Command = {
  says: 'Lists all problems, each as file:line:column.',
  options: { form: { value: 'FORM', says: 'only those of this form' }, watch: WATCH },
  run: (call) => watched(call, () => withEngine((engine) => run(call, engine))),
};

function placeOf(folder: string, { form, at }: Problem): string {
  const path = `${folder}/forms/${form}`;
  switch (at.is) {
    case 'behaviour':
      return `${scriptFile(folder, form, at.name)}:${at.line}:${at.column}${isOwn(at.name) || form === '' ? '' : `: in ${form}`}`;
    case 'form':
      return `${path}/form.json:1:1`;
    case 'finding':
      return `${path}/form.json:1:1: ${at.place}`;
    case 'service':
      return `${folder}/services/${at.service}.json:1:1: ${at.called}, line ${at.line} of its script`;
    case 'part':
      return `${path}/form.json:1:1: ${at.part}`;
    case 'scenario':
      return `${path}/scenarios/${at.name}.json:1:1: step ${at.step}`;
  }
}
