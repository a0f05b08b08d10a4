/**
 * The behaviours of the bench as a set: added, copied, described, deleted and brought back, put in order. Editing and
 * saving one of them stays in `store.ts`, which lends what is needed of it.
 */
import type { StoreApi } from 'zustand/vanilla';
import { inOrder, readHeader, withHeader, type Header } from '@/core/script/header';
import type { Scenario } from '@/core/scenario/definition';
import {
  newBehaviourName,
  newModuleName,
  renamedInScenario,
  type ScriptLanguage,
} from '@/core/structure/behaviours';
import type { LanguageClient } from '@/workers/language-client';
import { FOR_SEVERAL, isModule } from '@/core/script/script-name';
import { call } from '../api';
import type { Behaviour, BenchState } from './state';

export interface SetWork {
  edit(name: string, text: string): void;
  /** Saves everything on the bench that is not saved yet. */
  saveAll(): Promise<void>;
  /** A new behaviour begins to save itself. */
  begin(name: string): void;
  /** Nothing that was put off is done for a behaviour any more. */
  forget(name: string): void;
  /** Behaviours go on saving themselves under other names. */
  renamed(renames: readonly { from: string; to: string }[]): void;
  languageWorker(): LanguageClient;
  pathOf(rest: string): string;
  pathOfScript(name: string): string;
  /** Replays, runs the scenarios and checks, since one behaviour's words depend on the others. */
  afterSetChanged(): Promise<void>;
}

export function behaviourSet(
  { getState: get, setState: set }: StoreApi<BenchState>,
  {
    edit,
    saveAll,
    begin,
    forget,
    renamed: renameDrafts,
    languageWorker,
    pathOf,
    pathOfScript,
    afterSetChanged,
  }: SetWork,
) {
  const form = () => get().material.form.name;
  const behaviourOf = (name: string) =>
    get().behaviours.find((behaviour) => behaviour.name === name)!;
  const isThere = (name: string) => get().behaviours.some((behaviour) => behaviour.name === name);

  /** Adds a behaviour after all others, and opens it. */
  function addBehaviour(
    title: string,
    text = `/** ${title}: says what this is for. */\n\n`,
    language: ScriptLanguage = 'ts',
  ): string {
    const taken = get().behaviours.map((behaviour) => behaviour.name);
    return open(newBehaviourName(title, taken, language), text);
  }

  /** Adds code for several forms, this one among them, and opens it. */
  function addShared(what: 'several' | 'module', title: string): string {
    const taken = get().behaviours.map(({ name }) => name);
    return what === 'module'
      ? open(
          newModuleName(title, taken),
          `/** ${title}: says what this is for. */\n\nexport function name(): void {}\n`,
        )
      : open(
          `${FOR_SEVERAL}${newBehaviourName(title, taken)}`,
          `/**\n * ${title}: says what this is for.\n * @forms ${form()}\n */\n\n`,
        );
  }

  function open(name: string, text: string): string {
    put(name, text);
    // The cursor goes to its end, ready to write.
    const line = text.split('\n').length;
    set((state) => ({
      active: name,
      pane: 'code',
      goTo: { behaviour: name, line, takesFocus: true, count: (state.goTo?.count ?? 0) + 1 },
    }));
    return name;
  }

  function put(name: string, text: string): void {
    const behaviour: Behaviour = {
      name,
      text: '',
      revision: 0,
      saving: { state: 'waiting' },
      diagnostics: [],
      running: null,
      broken: null,
    };
    set((state) => ({ behaviours: inOrder([...state.behaviours, behaviour]) }));
    begin(name);
    edit(name, text);
  }

  function duplicate(name: string): void {
    if (!isThere(name)) return;
    const { text } = behaviourOf(name);
    const { title, purpose } = readHeader({ name, text });
    // Two that say the same would only be in each other's way.
    addBehaviour(
      `${title} copy`,
      withHeader({ text }, { title: `${title} copy`, purpose, off: true, forms: null }),
    );
  }

  /** Writes another title, purpose or on and off into the header of the source. */
  function describe(
    name: string,
    header: Partial<Pick<Header, 'title' | 'purpose' | 'off'>>,
  ): void {
    const { text } = behaviourOf(name);
    edit(name, withHeader({ text }, { ...readHeader({ name, text }), ...header }));
  }

  async function remove(name: string): Promise<void> {
    if (!isThere(name)) return;
    // What was typed last is kept as a revision, so that it can be brought back.
    await saveAll();
    const { text, revision } = behaviourOf(name);
    if (revision > 0) {
      const reply = await call('DELETE', `${pathOfScript(name)}?from=${revision}`);
      const says =
        reply.status === 409
          ? 'Somebody else saved this behaviour meanwhile, so it stays. Reload to see it.'
          : reply.ok
            ? null
            : reply.says;
      if (says !== null) return set({ notice: { tone: 'error', text: says } });
    }
    set({ deleted: { name, text } });
    await leave(name);
  }

  /** Takes a behaviour off the bench. */
  async function leave(name: string): Promise<void> {
    forget(name);
    const { behaviours, active } = get();
    const at = behaviours.findIndex((behaviour) => behaviour.name === name);
    const rest = behaviours.filter((behaviour) => behaviour.name !== name);
    set({
      behaviours: rest,
      active: active === name ? (rest[Math.min(at, rest.length - 1)]?.name ?? '') : active,
      pane: 'code',
    });
    await languageWorker().remove(name);
    await afterSetChanged();
  }

  function restore(): void {
    const { deleted } = get();
    if (deleted === null) return;
    set({ deleted: null });
    put(deleted.name, deleted.text);
    set({ active: deleted.name, pane: 'code' });
  }

  /** Brings the behaviours into another order; their files are numbered by it. */
  async function reorder(order: string[]): Promise<void> {
    await saveAll();
    if (get().behaviours.some(({ saving }) => saving.state !== 'saved'))
      return set({
        notice: { tone: 'error', text: 'Something is not saved yet, so the order stays.' },
      });
    const reply = await call<{ renames: { from: string; to: string }[] }>('PUT', pathOf('order'), {
      order,
    });
    if (!reply.ok) return set({ notice: { tone: 'error', text: reply.says } });
    const { renames } = reply.body;
    renameDrafts(renames);
    const renamed = (name: string) => renames.find(({ from }) => from === name)?.to ?? name;
    const bare = (name: string) => name.replace(/\.[jt]s$/, '');
    set((state) => ({
      active: renamed(state.active),
      behaviours: inOrder(
        state.behaviours.map((behaviour) => ({
          ...behaviour,
          name: renamed(behaviour.name),
          running:
            behaviour.running === null
              ? null
              : { ...behaviour.running, name: bare(renamed(behaviour.name)) },
        })),
      ),
      scenarios: state.scenarios.map((entry) => {
        const scenario = renamedInScenario(entry.scenario, renames);
        return scenario === entry.scenario
          ? entry
          : { ...entry, scenario, revision: entry.revision + 1 };
      }),
    }));
    for (const { from } of renames) await languageWorker().remove(from);
    for (const { to } of renames)
      await languageWorker().put({ name: to, text: behaviourOf(to).text });
    await afterSetChanged();
  }

  /** Moves a behaviour earlier or later by so many places. */
  async function move(name: string, by: number): Promise<void> {
    const order = get().behaviours.flatMap(({ name: one }) => (isModule(one) ? [] : [one]));
    const at = order.indexOf(name);
    if (at < 0 || at + by < 0 || at + by >= order.length) return;
    order.splice(at, 1);
    order.splice(at + by, 0, name);
    await reorder(order);
  }

  /** Adds a behaviour and scenarios that prove it. */
  async function takeStarter(
    title: string,
    text: string,
    scenarios: readonly Scenario[],
  ): Promise<void> {
    addBehaviour(title, text);
    for (const scenario of scenarios) {
      const reply = await call<{ name: string; scenario: Scenario; revision: number }>(
        'POST',
        pathOf('scenarios'),
        scenario,
      );
      if (!reply.ok) return set({ notice: { tone: 'error', text: reply.says } });
      set((state) => ({ scenarios: [...state.scenarios, reply.body] }));
    }
    // The behaviour may have been compiled, and the scenarios run, before these were there.
    if (scenarios.length > 0) void afterSetChanged();
    set({
      notice: {
        tone: 'info',
        text: `“${title}” is added${scenarios.length === 0 ? '' : `, with ${scenarios.length === 1 ? 'a scenario' : `${scenarios.length} scenarios`} that ${scenarios.length === 1 ? 'proves' : 'prove'} it`}.`,
      },
    });
  }

  function turn(name: string): void {
    if (isThere(name)) describe(name, { off: !readHeader(behaviourOf(name)).off });
  }

  return {
    addBehaviour,
    addShared,
    duplicate,
    describe,
    remove,
    leave,
    restore,
    reorder,
    move,
    turn,
    takeStarter,
  };
}
