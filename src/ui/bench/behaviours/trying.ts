/** Trying a behaviour out beside the session on the bench: what it does in each way of filling the form in, and whether scenarios pass with it. */
import type { Open, Scenario } from '@/core/scenario/definition';
import { openingOf } from '@/core/scenario/opening';
import { runScenario, type ScenarioResult } from '@/core/scenario/run-scenario';
import { seenAt, type Seen } from '@/core/scenario/seen';
import type { Engine } from '@/core/sandbox/engine';
import type { Value } from '@/core/form/value';
import type { Step } from '@/core/session/step';
import { engineInWorker } from '@/workers/engine-in-browser';
import type { Scripts } from '../code/scripts';
import type { BenchCore } from '../common/core';

/** The result of trying a script out. */
export interface TriedOut {
  /** The script as it is set. */
  text: string;
  ways: { seen: Seen; toParent: { set: string; to: Value }[]; refused: string | null }[];
  results: ScenarioResult[];
  /** Why it does not compile. */
  failure: string | null;
}

/** After all others, whatever they are called. */
const NAME = '99999-tried.ts';

export function trying(
  { languageWorker, material: source, cast }: BenchCore,
  { material }: Scripts,
) {
  let engine: Engine | null = null;

  async function tryOut(
    text: string,
    ways: readonly { open: Open; steps: readonly Step[] }[],
    scenarios: readonly Scenario[],
  ): Promise<TriedOut> {
    const { text: formatted } = (await languageWorker().format({ name: NAME, text }, 0)) ?? {
      text,
    };
    const compiled = await languageWorker().compile({ name: NAME, text: formatted });
    if (compiled.failure !== null)
      return { text: formatted, ways: [], results: [], failure: compiled.failure.says };
    const { form, scripts, ...rest } = material();
    const tried = (engine ??= engineInWorker());
    await tried.load({ ...rest, form, scripts: [...scripts, compiled], traced: false });
    const outcomes: TriedOut['ways'] = [];
    for (const { open, steps } of ways) {
      const answers = await tried.play(openingOf(open, form, cast()), steps);
      outcomes.push({
        seen: seenAt(answers, answers.length - 1),
        toParent: answers.flatMap(({ toParent }) => toParent),
        refused: answers.find(({ refused }) => refused !== null)?.refused ?? null,
      });
    }
    const results: ScenarioResult[] = [];
    for (const scenario of scenarios)
      results.push(
        await runScenario(scenario, form, source, cast(), (opening, steps) =>
          tried.play(opening, steps),
        ),
      );
    return { text: formatted, ways: outcomes, results, failure: null };
  }

  return { tryOut, end: () => engine?.close() };
}
