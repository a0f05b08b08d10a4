/** Scenarios changed in the list of their entries; each change can be undone, removing too. */
import type { StoreApi } from 'zustand/vanilla';
import type { Scenario } from '@/core/scenario/definition';
import { recordScenario } from '@/core/scenario/record';
import type { BenchCore } from '../core';
import type { TestsState } from './state';

export interface Keeping {
  keepScenario(title: string, scenario: Scenario): Promise<string | null>;
  editScenario(name: string, scenario: Scenario): Promise<void>;
  removeScenario(name: string): Promise<boolean>;
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

  const forgetLast = () => tests.setState(({ undoable }) => ({ undoable: undoable.slice(0, -1) }));

  return {
    changeScenario(name: string, scenario: Scenario, says: string): Promise<void> {
      remember(name, says);
      return editScenario(name, scenario);
    },

    async dropScenario(name: string): Promise<void> {
      remember(name, `“${scenarioOf(name)?.title}” was removed`);
      // One that could not be removed is still there.
      if (!(await removeScenario(name))) forgetLast();
    },

    async undoScenario(): Promise<void> {
      const last = tests.getState().undoable.at(-1);
      if (last === undefined) return;
      forgetLast();
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
