/** The tests of a form on the bench: its scenarios, grids, mutants and coverage. */
import { createStore } from 'zustand/vanilla';
import type { Scenario } from '@/core/scenario/definition';
import { NoSuchOpening, type Cast } from '@/core/scenario/opening';
import { sessionAt } from '@/core/scenario/run-scenario';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom, FormState } from '../form/form';
import type { Screen } from '../common/screen';
import { changingScenarios } from './changing';
import { coverageRuns } from './coverage-runs';
import { gridRuns } from './grid-runs';
import { mutationRuns } from './mutation-runs';
import { scenarioDrafts } from './scenario-drafts';
import { scenarioRuns } from './scenario-runs';
import { NO_TESTS, type TestsState, type TestsTab } from './state';
import { testWorkers } from './workers';

export type Tests = ReturnType<typeof benchTests>;

export function benchTests(core: BenchCore, screen: Screen, code: Code, form: FormRoom) {
  const { changes } = core;
  const store = createStore<TestsState>(() => ({
    ...NO_TESTS,
    scenarios: core.material.scenarios.map((one) => ({ ...one, saving: { state: 'saved' } })),
  }));
  const cast = (): Cast => ({ ...core.cast(), scenarios: store.getState().scenarios });
  const drafts = scenarioDrafts(core, store);
  const runs = scenarioRuns(core, code, store, cast);
  const changing = changingScenarios(core, screen, form, store, drafts, runs);
  const workers = testWorkers(core, code, store, cast);

  function open(tab: TestsTab, scenario: string | null = null): void {
    screen.showPane('tests');
    store.setState({ tab, ...(scenario === null ? {} : { scenario }) });
  }

  /** Opens a scenario, a row of its table or a combination of its grid in the live form. */
  async function show(
    name: string,
    at: number | null,
    after?: number,
    asked: FormState['asked'] = null,
  ): Promise<void> {
    const scenario = drafts.find(name);
    if (scenario === null) return;
    try {
      const session = sessionAt(scenario, at, { form: core.form(), cast: cast() });
      await form.show(session.open, session.steps, after, asked);
    } catch (caught) {
      if (!(caught instanceof NoSuchOpening)) throw caught;
      screen.complain(caught.message);
    }
  }

  /** Opens a scenario in the live form, at the step that first fails. */
  async function showMiss(name: string): Promise<void> {
    const miss = store.getState().results.get(name)?.misses[0];
    if (miss === undefined) return show(name, null);
    const asked = miss.part.startsWith('@') ? null : { part: miss.part, aspect: miss.aspect };
    await show(name, miss.at, miss.after, asked);
  }

  /** Keeps a scenario that was offered, and opens it, unless somebody has gone elsewhere while it was saved. */
  async function keepOffered(offered: Scenario | Promise<Scenario | null>): Promise<void> {
    const where = () => `${screen.store.getState().pane} ${store.getState().tab}`;
    const before = where();
    const scenario = await offered;
    const name = scenario === null ? null : await changing.keep(scenario.title, scenario);
    if (name !== null && where() === before) open('scenarios', name);
  }

  const grid = gridRuns(core, code, store, workers, form, changing.keepOrReplace);
  const mutation = mutationRuns(core, code, store, workers, changing, runs.run);

  return {
    store,
    cast,
    open,
    show,
    showMiss,
    run: runs.run,
    /** Ends what is under way. */
    stop: workers.stop,
    end(): void {
      runs.end();
      workers.end();
    },
    drafts,
    fromSession: changing.fromSession,
    keep: changes(changing.keep, Promise.resolve(null)),
    keepOrReplace: changes(changing.keepOrReplace, Promise.resolve(null)),
    keepOffered: changes(keepOffered, Promise.resolve()),
    change: changes(changing.change, Promise.resolve()),
    drop: changes(changing.drop, Promise.resolve()),
    undo: changes(changing.undo, Promise.resolve()),
    settle: changes(drafts.settle, undefined),
    grid: { ...grid, accept: changes(grid.accept, Promise.resolve(false)) },
    mutation: {
      ...mutation,
      keepWitnesses: changes(mutation.keepWitnesses, Promise.resolve()),
    },
    coverage: coverageRuns(core, code, store, workers, form, runs.keepRun),
  };
}
