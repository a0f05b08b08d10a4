/** Mutation testing on the bench: goes on where it was stopped, as long as code and scenarios are the same. */
import type { StoreApi } from 'zustand/vanilla';
import type { Mutant } from '@/core/script/mutants';
import { mutantHostOn } from '@/core/testing/mutant-host';
import {
  RANDOM_SESSIONS,
  inTrialOrder,
  judge,
  prepare,
  type MutantHost,
  type Verdict,
} from '@/core/testing/mutation';
import { randomSessions } from '@/core/testing/random-session';
import { spread } from '@/core/testing/spread';
import { mentionedIn } from '@/core/testing/values';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { Changing } from './changing';
import type { TestsState } from './state';
import type { TestWorkers } from './workers';

export function mutationRuns(
  { form, material, languageWorker }: BenchCore,
  code: Code,
  tests: StoreApi<TestsState>,
  { change, work, some, ground, compiled }: TestWorkers,
  { keep }: Pick<Changing, 'keep'>,
  runScenarios: () => Promise<void>,
) {
  /** What the verdicts stand on. */
  const stateOfTests = () =>
    JSON.stringify([
      code.store.getState().behaviours.map(({ name, text }) => [name, text]),
      tests.getState().scenarios.map(({ scenario }) => scenario),
      form(),
    ]);

  async function hostsFor(mutants: Mutant[]): Promise<MutantHost[]> {
    const { scripts, modules } = await compiled(async (source) => {
      const made = await languageWorker().compileMutants(source, form(), mutants.length + 1);
      mutants.push(...made.mutants);
      return made.script;
    });
    const loaded = { ...code.scripts.material(), scripts, modules, traced: false };
    return some(mutants.length).map((engine) => mutantHostOn(engine, loaded, mutants.length));
  }

  /** Tries the mutants that were not tried yet; from the start where code or scenarios have changed. */
  function tryMutants(): Promise<void> {
    return work('mutation', async (mine) => {
      const of = stateOfTests();
      const { mutation } = tests.getState();
      const known = mutation.of === of ? mutation.verdicts : new Map<number, Verdict>();
      change('mutation', {
        underway: { done: known.size, of: known.size },
        verdicts: known,
        kept: mutation.of === of ? mutation.kept : new Set(),
      });
      const mutants: Mutant[] = [];
      const hosts = await hostsFor(mutants);
      await Promise.all(hosts.map((host) => host.load(0)));
      const plans = randomSessions(
        {
          form: form(),
          tables: material.tables,
          cast: ground().cast,
          mentioned: mentionedIn(code.scripts.sources()),
        },
        RANDOM_SESSIONS,
      );
      const bench = await prepare(ground(), tests.getState().scenarios, plans, hosts[0]!);
      if (!mine()) return;
      const verdicts = new Map(known);
      change('mutation', {
        of,
        mutants,
        failing: bench.failing,
        underway: { done: verdicts.size, of: mutants.length },
      });
      const left = inTrialOrder(mutants).filter(({ number }) => !verdicts.has(number));
      await spread(hosts, left, async (host, mutant) => {
        if (!mine()) return;
        const verdict = await judge(mutant, bench, host);
        if (!mine()) return;
        verdicts.set(mutant.number, verdict);
        change('mutation', {
          verdicts: new Map(verdicts),
          underway: { done: verdicts.size, of: mutants.length },
        });
      });
    });
  }

  /** Keeps a scenario for each of these mutants that nothing notices yet; two that one scenario tells apart share it. */
  async function keepWitnesses(numbers: readonly number[]): Promise<void> {
    const made = new Set<string>();
    for (const number of numbers) {
      const { verdicts, kept } = tests.getState().mutation;
      const verdict = verdicts.get(number);
      if (verdict?.is !== 'survived' || verdict.witness === null || kept.has(number)) continue;
      const { title, ...session } = verdict.witness;
      const key = JSON.stringify(session);
      if (!made.has(key) && (await keep(title, verdict.witness, false)) === null) break;
      made.add(key);
      change('mutation', { kept: new Set(tests.getState().mutation.kept).add(number) });
    }
    await runScenarios();
  }

  return { run: tryMutants, keepWitnesses };
}
