/** `tavro mutate`: changes the behaviours in small places, one at a time; the scenarios must notice. */
import { takingPart } from '../core/script/header';
import { modulesUsed } from '../core/script/imports';
import { mutantInWords, type Mutant } from '../core/script/mutants';
import { scriptsOf } from '../core/script/of-form';
import type { Material } from '../core/session/material';
import { mutantHostOn } from '../core/testing/mutant-host';
import {
  RANDOM_SESSIONS,
  inTrialOrder,
  judge,
  prepare,
  scoreOf,
  type Verdict,
} from '../core/testing/mutation';
import { randomSessions } from '../core/testing/random-session';
import { spread } from '../core/testing/spread';
import { mentionedIn } from '../core/testing/values';
import type { Workspace, WorkspaceForm } from '../core/workspace/workspace';
import { Cache } from './cache';
import {
  castOf,
  compiledAnswering,
  enginesFor,
  formsOf,
  InvalidCall,
  open,
  withEngines,
  type Call,
  type Command,
} from './call';
import { progress } from './progress-line';
import { print } from './print';

interface Judged {
  form: string;
  failing: readonly string[];
  verdicts: { mutant: Mutant; verdict: Verdict }[];
}

async function run(call: Call): Promise<number> {
  const workspace = open(call);
  const least = call.least === undefined ? null : Number(call.least);
  if (least !== null && !(least >= 0 && least <= 100))
    throw new InvalidCall('--least is a percentage from 0 to 100.');
  const all: Judged[] = [];
  for (const entry of formsOf(call, workspace)) all.push(await mutateForm(workspace, entry));
  if (call.reporter === 'json')
    print(
      `${JSON.stringify(
        all.map((one) => ({ ...one, score: scoreOf(one.verdicts.map(({ verdict }) => verdict)) })),
        null,
        2,
      )}\n`,
    );
  else for (const judged of all) print(inWords(judged));
  if (all.some(({ failing }) => failing.length > 0)) return 1;
  const worst = Math.min(
    ...all.map(({ verdicts }) => scoreOf(verdicts.map(({ verdict }) => verdict)).share),
  );
  return least !== null && worst * 100 < least ? 1 : 0;
}

async function mutateForm(workspace: Workspace, entry: WorkspaceForm): Promise<Judged> {
  const cache = new Cache();
  const { compileMutants } = await import('../core/language/mutating');
  const sources = scriptsOf(entry.form, entry.behaviours, workspace.shared);
  const mutants: Mutant[] = [];
  const compileAll = (some: readonly (typeof sources)[number][]) =>
    some.map((source) => {
      const compiled = compileMutants(source, entry.form, mutants.length + 1);
      mutants.push(...compiled.mutants);
      return compiled.script;
    });
  const scripts = compileAll(takingPart(sources));
  const modules = compileAll(modulesUsed(sources));
  const { tables, services } = workspace;
  const answering = await compiledAnswering(cache, services);
  const material: Material = {
    form: entry.form,
    tables,
    services,
    answering,
    scripts,
    modules,
    traced: false,
  };
  const cast = castOf(workspace, entry);
  const shown = progress(entry.form.name, mutants.length);
  const judged = await withEngines(enginesFor(mutants.length), async (engines) => {
    const hosts = engines.map((engine) => mutantHostOn(engine, material, mutants.length));
    await Promise.all(hosts.map((host) => host.load(0)));
    const plans = randomSessions(
      { form: entry.form, tables, cast, mentioned: mentionedIn(sources) },
      RANDOM_SESSIONS,
    );
    const ground = { form: entry.form, source: workspace, cast };
    const bench = await prepare(ground, entry.scenarios, plans, hosts[0]!);
    const verdicts = await spread(hosts, inTrialOrder(mutants), async (host, mutant) => {
      shown.at(mutant.script);
      return { mutant, verdict: await judge(mutant, bench, host) };
    });
    return { form: entry.form.name, failing: bench.failing, verdicts };
  });
  shown.end();
  return {
    ...judged,
    verdicts: judged.verdicts.toSorted((a, b) => a.mutant.number - b.mutant.number),
  };
}

function inWords({ form, failing, verdicts }: Judged): string {
  const score = scoreOf(verdicts.map(({ verdict }) => verdict));
  const lines = [
    `${form}: ${Math.round(score.share * 100)} % (${score.caught} of ${score.caught + score.survived} changes were noticed; ${score.equivalent} make no difference that a session shows)`,
  ];
  if (failing.length > 0) lines.push(`  scenarios that fail anyway: ${failing.join(', ')}`);
  for (const { mutant, verdict } of verdicts)
    if (verdict.is === 'survived')
      lines.push(
        `  ${mutant.script}:${mutant.line} ${mutantInWords(mutant)}${verdict.reached ? '' : ' (no scenario gets there)'}`,
      );
  return `${lines.join('\n')}\n`;
}

export const mutate: Command = {
  says: 'Changes behaviours in small places, one at a time, and lists the changes that no scenario notices.',
  options: {
    form: { value: 'FORM', says: 'only this form' },
    least: { value: 'PERCENT', says: 'fails where a form has less of its changes noticed' },
    reporter: { value: 'NAME', says: 'json for a machine to read' },
  },
  run,
};
