/**
 * Everything that is wrong with a form in one list: what the compiler found, mistakes of the trade, parts that wait for a
 * script, scenarios that fail. The bench, the workspace's page and `tavro check` show the same.
 */
import * as z from 'zod';
import { keyOf, type Finding as ListedFinding } from '../explore/finding';
import { readHeader } from '../script/header';
import { isModule } from '../script/script-name';
import type { PartFinding } from '../language/mistakes/idle-part';
import type { FormLanguage } from '../language/language-service';
import type { Diagnostic } from '../language/answers';
import type { Source } from '../script/header';
import type { Form } from '../form/definition';
import type { Scenario } from '../scenario/definition';
import type { Cast } from '../scenario/opening';
import type { OptionSource } from '../scenario/options';
import { runScenario, type Player, type ScenarioResult } from '../scenario/run-scenario';

export const ProblemSchema = z.strictObject({
  /** The empty text for what belongs to several. */
  form: z.string(),
  /** The behaviour's file, the part, the scenario or the service it leads to, or the form as a whole. */
  at: z.discriminatedUnion('is', [
    z.strictObject({ is: z.literal('form') }),
    z.strictObject({
      is: z.literal('behaviour'),
      name: z.string(),
      title: z.string(),
      line: z.number(),
      column: z.number(),
    }),
    z.strictObject({ is: z.literal('part'), part: z.string() }),
    /** The script of a function of a service, by the line within it. */
    z.strictObject({
      is: z.literal('service'),
      service: z.string(),
      title: z.string(),
      called: z.string(),
      line: z.number(),
      column: z.number(),
    }),
    /** A moment that the search found, by the name of the finding. */
    z.strictObject({ is: z.literal('finding'), key: z.string(), place: z.string() }),
    z.strictObject({
      is: z.literal('scenario'),
      name: z.string(),
      title: z.string(),
      step: z.number(),
    }),
  ]),
  sort: z.enum(['types', 'mistake', 'scenario', 'found']),
  severity: z.enum(['error', 'warning']),
  says: z.string(),
  code: z.string(),
});
export type Problem = z.infer<typeof ProblemSchema>;

export function ofDiagnostic(
  form: string,
  { name, text }: Source,
  { line, column, severity, says, code }: Diagnostic,
): Problem {
  const isMistake = !code.startsWith('TS') && code !== 'top-level';
  return {
    form,
    at: { is: 'behaviour', name, title: readHeader({ name, text }).title, line, column },
    sort: isMistake ? 'mistake' : 'types',
    severity,
    says,
    code,
  };
}

export function ofPart(form: string, { part, says, code }: PartFinding): Problem {
  return { form, at: { is: 'part', part }, sort: 'mistake', severity: 'warning', says, code };
}

/** A finding of the search, told in the words of the form. */
export function ofFinding(
  form: string,
  finding: Pick<ListedFinding, 'kind' | 'level' | 'part' | 'aspect'>,
  place: string,
  says: string,
): Problem {
  return {
    form,
    at: { is: 'finding', key: keyOf(finding), place },
    sort: 'found',
    severity: finding.level === 'wrong' ? 'error' : 'warning',
    says,
    code: finding.kind,
  };
}

/** A failing scenario is one problem, at the first expectation that is not met. */
export function ofScenario(
  form: string,
  name: string,
  { title, passed, misses }: ScenarioResult,
): Problem[] {
  const [first] = misses;
  if (passed || first === undefined) return [];
  const more = misses.length > 1 ? ` (and ${misses.length - 1} more)` : '';
  return [
    {
      form,
      at: { is: 'scenario', name, title, step: first.after },
      sort: 'scenario',
      severity: 'error',
      says: `${first.says}${more}`,
      code: 'scenario',
    },
  ];
}

/**
 * What is found in the sources of a form, apart from its shared modules (`shared.ts`). The language has to be surrounded
 * by the form; its scripts are put here.
 */
export function problemsInSources(
  form: string,
  scripts: readonly Source[],
  language: FormLanguage,
): Problem[] {
  for (const script of scripts) language.put(script);
  const behaviours = scripts.filter(({ name }) => !isModule(name));
  return [
    ...behaviours.flatMap((behaviour) =>
      language
        .diagnose(behaviour.name)
        .map((diagnosis) => ofDiagnostic(form, behaviour, diagnosis)),
    ),
    ...language.idleParts().map((finding) => ofPart(form, finding)),
  ];
}

/** What fails among the scenarios of a form, played in whichever host. */
export async function problemsInScenarios(
  form: Form,
  scenarios: readonly { name: string; scenario: Scenario }[],
  source: OptionSource,
  cast: Cast,
  play: Player,
): Promise<Problem[]> {
  const problems: Problem[] = [];
  for (const { name, scenario } of scenarios)
    problems.push(
      ...ofScenario(form.name, name, await runScenario(scenario, form, source, cast, play)),
    );
  return problems;
}

const WEIGHT = { error: 0, warning: 1 } as const;

/** Errors first; within them as they stand in the form. */
export function inWeight(problems: readonly Problem[]): Problem[] {
  return problems
    .map((problem, i) => ({ problem, i }))
    .toSorted((a, b) => WEIGHT[a.problem.severity] - WEIGHT[b.problem.severity] || a.i - b.i)
    .map(({ problem }) => problem);
}
