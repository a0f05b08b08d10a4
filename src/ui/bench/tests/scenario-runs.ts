/** Running the scenarios beside the live form: those first that matter now, and why they miss what they expect. */
import type { StoreApi } from 'zustand/vanilla';
import type { Cast } from '@/core/scenario/opening';
import { openingOf } from '@/core/scenario/opening';
import { runScenario, sessionAt, type Miss } from '@/core/scenario/run-scenario';
import { readHeader } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import type { Run } from '@/core/tape/tape';
import { namesFor } from '@/core/tape/words';
import { whyMissed } from '@/core/testing/why-missed';
import { untilDone, wasCutShort } from '@/core/sandbox/cut-short';
import type { Engine } from '@/core/sandbox/engine';
import { engineInWorker } from '@/workers/engine-in-browser';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { TestsState } from './state';

/** Milliseconds until scenarios that were cut short are run again by themselves. */
const CUT_SHORT_AGAIN = 10_000;

export function scenarioRuns(
  { form, material, pathOf, save, saving }: BenchCore,
  { store: code, scripts }: Code,
  { getState: get, setState: set }: StoreApi<TestsState>,
  cast: () => Cast,
) {
  const { getState: ofCode } = code;
  let engine: Engine | null = null;
  /** The bench has gone, and with it the engine. */
  let over = false;
  /** Asked for while they run: what they run against may have changed meanwhile. */
  let wantedAgain = false;
  let laterAgain: ReturnType<typeof setTimeout> | undefined;

  /** Runs all scenarios; what is under way when the bench goes is given up. */
  async function run(): Promise<void> {
    try {
      if (!over) await runAll();
    } catch (caught) {
      if (!over) throw caught;
    }
  }

  async function runAll(): Promise<void> {
    if (get().running) {
      wantedAgain = true;
      return;
    }
    wantedAgain = false;
    clearTimeout(laterAgain);
    set({ running: true });
    engine ??= engineInWorker();
    const { results } = get();
    // What failed last is looked at first, since somebody may be mending it.
    // Then come those that the behaviour being edited has a part in.
    const weight = (name: string) =>
      results.get(name)?.passed !== true
        ? 0
        : touched.get(name)?.has(baseName(ofCode().active))
          ? 1
          : 2;
    const scenarios = get().scenarios.toSorted((a, b) => weight(a.name) - weight(b.name));
    try {
      await engine.load({ ...scripts.material(), traced: false });
      for (const { name, scenario } of scenarios) {
        const result = await runScenario(scenario, form(), material, cast(), (opening, steps) =>
          untilDone(() => engine!.play(opening, steps)),
        );
        set((state) => ({ results: new Map(state.results).set(name, result) }));
      }
      await sayWhy();
    } catch (caught) {
      if (!wasCutShort(caught)) throw caught;
      // Nothing is known of them, whatever they came to before.
      set({ results: new Map() });
      clearTimeout(laterAgain);
      laterAgain = setTimeout(() => void run(), CUT_SHORT_AGAIN);
      return;
    } finally {
      // Whatever went wrong, they can be run again.
      set({ running: false });
    }
    if (wantedAgain) return runAll();
    await keepRun();
    await learnTouched();
  }

  /** Misses told of with their reason. */
  const EXPLAINED = 5;

  /** The behaviours that ran in each scenario, once each scenario was played traced. */
  const touched = new Map<string, ReadonlySet<string>>();

  /** Plays scenarios that are new to it once, traced, when nothing else waits. */
  async function learnTouched(): Promise<void> {
    const fresh = get().scenarios.filter(({ name }) => !touched.has(name));
    if (fresh.length === 0) return;
    await engine!.load({ ...scripts.material(), traced: true });
    for (const { name, scenario } of fresh) {
      if (get().running) return;
      const ran = new Set<string>();
      await runScenario(scenario, form(), material, cast(), async (opening, steps) => {
        const answers = await engine!.play(opening, steps);
        for (const { tape } of answers)
          for (const entry of tape) if (entry.type === 'run') ran.add((entry as Run).behaviour);
        return answers;
      });
      touched.set(name, ran);
    }
  }

  /** Plays what failed once more, traced, and says of each miss who said what it is instead. */
  async function sayWhy(): Promise<void> {
    const { scenarios, results } = get();
    const { behaviours } = ofCode();
    const failed = scenarios.filter(({ name }) => results.get(name)?.passed === false);
    if (failed.length === 0) return;
    await engine!.load({ ...scripts.material(), traced: true });
    const titles = behaviours.map((one) => ({ name: one.name, title: readHeader(one).title }));
    const names = namesFor(form(), titles, material.people);
    for (const { name, scenario } of failed) {
      const result = results.get(name)!;
      const misses: Miss[] = [];
      for (const [i, miss] of result.misses.entries()) {
        if (i >= EXPLAINED || miss.part === '@open') {
          misses.push(miss);
          continue;
        }
        const { open, steps } = sessionAt(scenario, miss.at, { form: form(), cast: cast() });
        const answers = await engine!.play(openingOf(open, form(), cast()), steps);
        const why = whyMissed(miss, answers, names);
        misses.push(why === null ? miss : { ...miss, why });
      }
      // It may have been run again meanwhile.
      if (get().results.get(name) === result)
        set((state) => ({ results: new Map(state.results).set(name, { ...result, misses }) }));
    }
  }

  /** The outcome of the scenarios is kept for the page of forms, once all that they depend on is saved. */
  async function keepRun(coverage?: number): Promise<void> {
    const { scenarios, results } = get();
    if (saving.unsavedNow() !== null || ofCode().behaviours.some(({ broken }) => broken !== null))
      return;
    const passed = scenarios.filter(({ name }) => results.get(name)?.passed === true).length;
    const failing = scenarios
      .filter(({ name }) => results.get(name)?.passed !== true)
      .map(({ scenario }) => scenario.title);
    await save('PUT', pathOf('scenario-run'), {
      passed,
      failed: failing.length,
      failing,
      ...(coverage === undefined ? {} : { coverage }),
    });
  }

  return {
    run,
    keepRun,
    /** What ran in a scenario before says nothing of it any more. */
    changed: (name: string) => void touched.delete(name),
    end: () => {
      over = true;
      clearTimeout(laterAgain);
      engine?.close();
    },
  };
}
