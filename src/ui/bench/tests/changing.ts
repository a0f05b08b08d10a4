/** Scenarios kept, changed in the list of their entries and removed; each change can be undone, removing too. */
import type { StoreApi } from 'zustand/vanilla';
import type { Scenario } from '@/core/scenario/definition';
import { recordScenario } from '@/core/scenario/record';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';
import type { Screen } from '../common/screen';
import type { ScenarioDrafts } from './scenario-drafts';
import type { scenarioRuns } from './scenario-runs';
import type { TestsState, Undoable } from './state';

/** The last change that can be undone, of one scenario or of any. */
export function lastOf(undoable: readonly Undoable[], name: string | null): Undoable | undefined {
  return undoable.findLast((one) => name === null || one.name === name);
}

/** Changes that can be undone. */
const UNDOABLE = 30;

export type Changing = ReturnType<typeof changingScenarios>;

export function changingScenarios(
  { form: definition }: BenchCore,
  screen: Screen,
  form: FormRoom,
  { getState: get, setState: set }: StoreApi<TestsState>,
  drafts: ScenarioDrafts,
  runs: ReturnType<typeof scenarioRuns>,
) {
  function remember(name: string, says: string): void {
    const before = drafts.find(name);
    set(({ undoable }) => ({ undoable: [...undoable, { name, before, says }].slice(-UNDOABLE) }));
  }

  const forget = (gone: Undoable) =>
    set(({ undoable }) => ({ undoable: undoable.filter((one) => one !== gone) }));

  async function edit(name: string, scenario: Scenario): Promise<void> {
    runs.changed(name);
    await drafts.edit(name, scenario);
    await runs.run();
  }

  /** Whether it is gone. */
  async function remove(name: string): Promise<boolean> {
    const says = await drafts.remove(name);
    if (says !== null) screen.complain(says);
    else void runs.run();
    return says === null;
  }

  /** The session in the live form, from its opening, as a scenario. */
  function fromSession(title: string): Scenario {
    const { open, steps, answers } = form.session.state;
    return recordScenario(title, open, definition(), steps, answers);
  }

  /** Keeps a scenario, or what was done in the live form, and runs it; gives its name, null where it could not be kept. */
  async function keep(title: string, scenario?: Scenario, alsoRuns = true): Promise<string | null> {
    const added = await drafts.add(scenario ?? fromSession(title));
    if ('says' in added) {
      screen.complain(added.says);
      return null;
    }
    screen.say(`Kept as the scenario “${title}”.`);
    if (alsoRuns) await runs.run();
    return added.name;
  }

  function change(name: string, scenario: Scenario, says: string): Promise<void> {
    remember(name, says);
    return edit(name, scenario);
  }

  /** Keeps a scenario, in place of the one that has its title. */
  async function keepOrReplace(scenario: Scenario): Promise<string | null> {
    const { title } = scenario;
    const taken = get().scenarios.find((one) => one.scenario.title === title);
    if (taken === undefined) return keep(title, scenario);
    await change(taken.name, scenario, `“${title}” was replaced`);
    return taken.name;
  }

  async function drop(name: string): Promise<void> {
    remember(name, `“${drafts.find(name)?.title}” was removed`);
    // One that could not be removed is still there.
    if (!(await remove(name))) forget(get().undoable.at(-1)!);
  }

  /** Undoes the last change, of this scenario or of any. */
  async function undo(name: string | null = null): Promise<void> {
    const last = lastOf(get().undoable, name);
    if (last === undefined) return;
    forget(last);
    if (last.before === null) await remove(last.name);
    else await edit(last.name, last.before);
  }

  return { fromSession, keep, keepOrReplace, change, drop, undo };
}
