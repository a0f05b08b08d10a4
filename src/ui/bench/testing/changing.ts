/** Scenarios changed in the list of their entries; each change can be undone, removing too. */
import type { StoreApi } from 'zustand/vanilla';
import type { Scenario } from '@/core/scenario/definition';
import { recordScenario } from '@/core/scenario/record';
import type { BenchCore } from '../core';
import type { TestsState, Undoable } from './state';

export interface Keeping {
  /** Without `runs` whoever keeps several runs them once, when all are kept. */
  keepScenario(title: string, scenario: Scenario, runs?: boolean): Promise<string | null>;
  runScenarios(): Promise<void>;
  editScenario(name: string, scenario: Scenario): Promise<void>;
  removeScenario(name: string): Promise<boolean>;
}

/** The last change that can be undone, of one scenario or of any. */
export function lastOf(undoable: readonly Undoable[], name: string | null): Undoable | undefined {
  return undoable.findLast((one) => name === null || one.name === name);
}

/** Changes that can be undone. */
const UNDOABLE = 30;

export function changingScenarios(
  { get, form }: BenchCore,
  tests: StoreApi<TestsState>,
  { editScenario, removeScenario }: Keeping,
) {
  const scenarioOf = (name: string) =>
    get().scenarios.find((one) => one.name === name)?.scenario ?? null;

  function remember(name: string, says: string): void {
    const before = scenarioOf(name);
    tests.setState(({ undoable }) => ({
      undoable: [...undoable, { name, before, says }].slice(-UNDOABLE),
    }));
  }

  const forget = (gone: Undoable) =>
    tests.setState(({ undoable }) => ({ undoable: undoable.filter((one) => one !== gone) }));

  return {
    changeScenario(name: string, scenario: Scenario, says: string): Promise<void> {
      remember(name, says);
      return editScenario(name, scenario);
    },

    async dropScenario(name: string): Promise<void> {
      remember(name, `“${scenarioOf(name)?.title}” was removed`);
      // One that could not be removed is still there.
      if (!(await removeScenario(name))) forget(tests.getState().undoable.at(-1)!);
    },

    /** Undoes the last change, of this scenario or of any. */
    async undoScenario(name: string | null = null): Promise<void> {
      const last = lastOf(tests.getState().undoable, name);
      if (last === undefined) return;
      forget(last);
      if (last.before === null) await removeScenario(last.name);
      else await editScenario(last.name, last.before);
    },

    /** The session in the live form, from its opening, as a scenario. */
    asScenario(title: string): Scenario {
      const { open, steps, answers } = get();
      return recordScenario(title, open, form(), steps, answers);
    },
  };
}
