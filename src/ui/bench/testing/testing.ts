/** The tests of a form on the bench, put together of scenarios being changed, grids, options both ways, mutants and coverage. */
import { createStore } from 'zustand/vanilla';
import type { Open, Scenario } from '@/core/scenario/definition';
import { NoSuchOpening } from '@/core/scenario/opening';
import { sessionAt } from '@/core/scenario/run-scenario';
import type { Step } from '@/core/session/step';
import type { BenchCore } from '../core';
import { bothWaysRuns } from './both-ways-runs';
import { changingScenarios, type Keeping } from './changing';
import { coverageRuns } from './coverage-runs';
import { gridRuns } from './grid-runs';
import { mutationRuns } from './mutation-runs';
import { NO_TESTS, type TestsState, type TestsTab } from './state';
import { testWorkers } from './workers';

export interface TestingWork extends Keeping {
  replay(): Promise<void>;
  keepRun(coverage?: number): Promise<void>;
}

export function benchTesting(core: BenchCore, bench: TestingWork) {
  const { get, set, form, cast } = core;
  const tests = createStore<TestsState>(() => NO_TESTS);
  const workers = testWorkers(core, tests);
  const changing = changingScenarios(core, tests, bench);

  function showTests(tab: TestsTab, scenario: string | null = null): void {
    set({ pane: 'tests' });
    tests.setState({ tab, ...(scenario === null ? {} : { scenario }) });
  }

  /** Opens a session in the live form, at one of its steps. */
  async function showSession(open: Open, steps: readonly Step[], at = steps.length): Promise<void> {
    set({ open, steps: [...steps], answers: [], at, replayed: null, asked: null });
    await bench.replay();
    set({ at });
  }

  /** Opens a scenario, a row of its table or a combination of its grid in the live form. */
  async function showScenario(name: string, at: number | null, after?: number): Promise<void> {
    const found = get().scenarios.find((one) => one.name === name);
    if (found === undefined) return;
    try {
      const { open, steps } = sessionAt(found.scenario, at, { form: form(), cast: cast() });
      await showSession(open, steps, after ?? steps.length);
    } catch (caught) {
      if (!(caught instanceof NoSuchOpening)) throw caught;
      core.complain(caught.message);
    }
  }

  const titled = (title: string) =>
    get().scenarios.find(({ scenario }) => scenario.title === title);

  /** Keeps a scenario, in place of the one that has its title. */
  async function keepOrReplace(scenario: Scenario): Promise<string | null> {
    const taken = titled(scenario.title);
    if (taken === undefined) return bench.keepScenario(scenario.title, scenario);
    await changing.changeScenario(taken.name, scenario, `“${scenario.title}” was replaced`);
    return taken.name;
  }

  /** Keeps a scenario that was offered, and opens it. */
  async function keepOffered(scenario: Scenario): Promise<void> {
    const name = await bench.keepScenario(scenario.title, scenario);
    if (name !== null) showTests('scenarios', name);
  }

  return {
    tests,
    showTests,
    showSession,
    showScenario,
    keepOrReplace,
    keepOffered,
    stopTests: workers.stop,
    endTests: workers.end,
    ...changing,
    ...gridRuns(core, tests, workers, { showSession, keepOrReplace }),
    ...bothWaysRuns(core, workers, keepOffered),
    ...mutationRuns(core, tests, workers, bench),
    ...coverageRuns(core, workers, bench.keepRun),
  };
}
