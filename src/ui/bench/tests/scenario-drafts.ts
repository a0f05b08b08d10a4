/** The scenarios of the form as they save themselves: added, edited, removed, and what an earlier visit left unsaved. */
import type { StoreApi } from 'zustand/vanilla';
import type { Scenario } from '@/core/scenario/definition';
import { renamedInScenario } from '@/core/structure/behaviours';
import { Draft, put } from '../../draft/draft';
import { forgetLeft, keepUnder } from '../../draft/kept';
import { leftBeside } from '../../draft/left';
import type { BenchCore } from '../common/core';
import type { LeftScenario } from '../common/left';
import type { TestsState } from './state';

type Stored = { name: string; scenario: Scenario; revision: number };

export type ScenarioDrafts = ReturnType<typeof scenarioDrafts>;

export function scenarioDrafts(
  { material, pathOf, save, saving }: BenchCore,
  { getState: get, setState: set }: StoreApi<TestsState>,
) {
  const keyOf = (name: string) => `scenario ${material.form.name}/${name}`;
  /** A draft of null is a scenario that somebody else has removed meanwhile. */
  const drafts = new Map<string, Draft<Scenario | null>>();
  saving.add('scenarios', () => drafts.values());

  function begin({ name, scenario, revision }: Stored): Draft<Scenario | null> {
    const draft: Draft<Scenario | null> = new Draft<Scenario | null>({
      value: scenario,
      revision,
      send: (value, from) =>
        put<Scenario | null>(
          pathOf(`scenarios/${name}`),
          { scenario: value, from },
          ({ theirs }) => theirs,
        ),
      keep: keepUnder(keyOf(name)),
      onChange: () => {
        const { value } = draft;
        if (value === null) return;
        set((state) => ({
          scenarios: state.scenarios.map((entry) =>
            entry.name === name
              ? { name, scenario: value, revision: draft.revision, saving: draft.saving }
              : entry,
          ),
        }));
      },
    });
    drafts.set(name, draft);
    return draft;
  }

  function show(stored: Stored): Draft<Scenario | null> {
    set((state) => ({
      scenarios: [...state.scenarios, { ...stored, saving: { state: 'saved' } }],
    }));
    return begin(stored);
  }

  for (const stored of material.scenarios) begin(stored);

  function leave(name: string): void {
    drafts.get(name)?.end(true);
    drafts.delete(name);
    set((state) => ({ scenarios: state.scenarios.filter((entry) => entry.name !== name) }));
  }

  return {
    find: (name: string): Scenario | null =>
      get().scenarios.find((one) => one.name === name)?.scenario ?? null,

    /** Adds a scenario under a name of its own; gives that, or what is in the way. */
    async add(scenario: Scenario): Promise<{ name: string } | { says: string }> {
      const reply = await save<Stored>('POST', pathOf('scenarios'), scenario);
      if (!reply.ok) return { says: reply.says };
      show(reply.body);
      return { name: reply.body.name };
    },

    /** Changes a scenario, or brings back one that was removed, and waits until that is saved or cannot be. */
    async edit(name: string, scenario: Scenario): Promise<void> {
      const draft = drafts.get(name) ?? show({ name, scenario, revision: 0 });
      // One that is brought back is new to its draft as well.
      draft.edit(draft.value === scenario ? { ...scenario } : scenario);
      await draft.save();
    },

    /** Removes a scenario; gives what is in the way. */
    async remove(name: string): Promise<string | null> {
      const draft = drafts.get(name);
      if (draft === undefined) return null;
      await draft.save();
      const reply = await save('DELETE', pathOf(`scenarios/${name}?from=${draft.revision}`));
      if (!reply.ok) return reply.says;
      leave(name);
      return null;
    },

    /** Ends a conflict with one of the two; one that somebody removed goes, or is brought back. */
    settle(name: string, take: 'mine' | 'theirs'): void {
      const draft = drafts.get(name);
      if (draft?.saving.state !== 'conflict') return;
      if (take === 'theirs' && draft.saving.theirs.content === null) leave(name);
      else draft.settle(take);
    },

    /** The server has renamed behaviours in them. */
    behavioursRenamed(renames: readonly { from: string; to: string }[]): void {
      for (const { name, scenario, revision } of get().scenarios) {
        const renamed = renamedInScenario(scenario, renames);
        if (renamed !== scenario) drafts.get(name)?.adopt(renamed, revision + 1);
      }
    },

    async findLeft(): Promise<LeftScenario[]> {
      const found = await Promise.all(
        [...drafts].map(async ([name, { value }]): Promise<LeftScenario[]> => {
          const left = await leftBeside(
            keyOf(name),
            value,
            async () => (await import('@/core/scenario/definition')).ScenarioSchema,
          );
          // A draft of null is never kept.
          return left?.value == null ? [] : [{ name, scenario: left.value, at: left.at }];
        }),
      );
      return found.flat();
    },

    takeLeft(name: string, scenario: Scenario | null): void {
      if (scenario !== null) drafts.get(name)?.edit(scenario);
      void forgetLeft(keyOf(name));
    },
  };
}
