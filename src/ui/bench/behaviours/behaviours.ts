/** The behaviours of the bench as a set: added, copied, described, deleted and brought back, put in order, tried out. */
import { createStore } from 'zustand/vanilla';
import { inOrder, readHeader, withHeader, type Header } from '@/core/script/header';
import type { Scenario } from '@/core/scenario/definition';
import { newBehaviourName, newModuleName, type ScriptLanguage } from '@/core/structure/behaviours';
import { baseName, FOR_SEVERAL, isModule } from '@/core/script/script-name';
import type { Code } from '../code/code';
import type { Behaviour } from '../code/state';
import type { BenchCore } from '../common/core';
import type { Screen } from '../common/screen';
import type { ScenarioDrafts } from '../tests/scenario-drafts';
import { trying } from './trying';

export interface BehavioursState {
  /** Whether the title of a new behaviour is being asked for. */
  adding: boolean;
  /** A behaviour just deleted, which can be brought back. */
  deleted: { name: string; text: string } | null;
}

export function benchBehaviours(
  core: BenchCore,
  screen: Screen,
  code: Code,
  scenarios: ScenarioDrafts,
) {
  const { changes, changed, languageWorker, pathOf, pathOfScript, save } = core;
  const store = createStore<BehavioursState>(() => ({ adding: false, deleted: null }));
  const { getState: get, setState: setCode } = code.store;
  const { texts, edit } = code;
  const { has: isThere, find } = code.scripts;
  const form = () => core.form().name;
  const starters = trying(core, code.scripts);

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
    code.open(name, { line: text.split('\n').length, takesFocus: true });
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
    setCode((state) => ({ behaviours: inOrder([...state.behaviours, behaviour]) }));
    texts.begin(name);
    edit(name, text);
  }

  function duplicate(name: string): void {
    if (!isThere(name)) return;
    const { text } = find(name)!;
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
    const { text } = find(name)!;
    edit(name, withHeader({ text }, { ...readHeader({ name, text }), ...header }));
  }

  async function remove(name: string): Promise<void> {
    if (!isThere(name)) return;
    // What was typed last is kept as a revision, so that it can be brought back.
    await core.saving.saveAll();
    const { text, revision } = find(name)!;
    if (revision > 0) {
      const reply = await save('DELETE', `${pathOfScript(name)}?from=${revision}`);
      const says =
        reply.status === 409
          ? 'Somebody else saved this behaviour meanwhile, so it stays. Reload to see it.'
          : reply.ok
            ? null
            : reply.says;
      if (says !== null) return screen.complain(says);
    }
    store.setState({ deleted: { name, text } });
    await leave(name);
  }

  /** Takes a behaviour off the bench. */
  async function leave(name: string): Promise<void> {
    code.checks.forget(name);
    texts.forget(name);
    const { behaviours, active } = get();
    const at = behaviours.findIndex((behaviour) => behaviour.name === name);
    const rest = behaviours.filter((behaviour) => behaviour.name !== name);
    setCode({ behaviours: rest });
    code.open(active === name ? (rest[Math.min(at, rest.length - 1)]?.name ?? '') : active);
    await languageWorker().remove(name);
    await changed.tell(null);
  }

  function restore(): void {
    const { deleted } = store.getState();
    if (deleted === null) return;
    store.setState({ deleted: null });
    put(deleted.name, deleted.text);
    code.open(deleted.name);
  }

  /** Brings the behaviours into another order; their files are numbered by it. */
  async function reorder(order: string[]): Promise<void> {
    if ((await core.saving.notSaved()) !== null)
      return screen.complain('Something is not saved yet, so the order stays.');
    const reply = await save<{ renames: { from: string; to: string }[] }>('PUT', pathOf('order'), {
      order,
    });
    if (!reply.ok) return screen.complain(reply.says);
    const { renames } = reply.body;
    texts.renamed(renames);
    const renamed = (name: string) => renames.find(({ from }) => from === name)?.to ?? name;
    setCode((state) => ({
      active: renamed(state.active),
      behaviours: inOrder(
        state.behaviours.map((behaviour) => ({
          ...behaviour,
          name: renamed(behaviour.name),
          running:
            behaviour.running === null
              ? null
              : { ...behaviour.running, name: baseName(renamed(behaviour.name)) },
        })),
      ),
    }));
    scenarios.behavioursRenamed(renames);
    for (const { from } of renames) await languageWorker().remove(from);
    for (const { to } of renames) await languageWorker().put({ name: to, text: find(to)!.text });
    await changed.tell(null);
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
    proving: readonly Scenario[],
  ): Promise<void> {
    addBehaviour(title, text);
    for (const scenario of proving) {
      const added = await scenarios.add(scenario);
      if ('says' in added) return screen.complain(added.says);
    }
    // The behaviour may have been compiled, and the scenarios run, before these were there.
    if (proving.length > 0) void changed.tell(null);
    screen.say(
      `“${title}” is added${proving.length === 0 ? '' : `, with ${proving.length === 1 ? 'a scenario' : `${proving.length} scenarios`} that ${proving.length === 1 ? 'proves' : 'prove'} it`}.`,
    );
  }

  function turn(name: string): void {
    if (isThere(name)) describe(name, { off: !readHeader(find(name)!).off });
  }

  /** Ends a conflict with one of the two texts. One that somebody removed or renamed meanwhile goes, or becomes a new one. */
  function settleConflict(name: string, take: 'mine' | 'theirs'): void {
    const { saving, text } = find(name)!;
    if (saving.state !== 'conflict') return;
    if (saving.theirs.revision > 0) return texts.settle(name, take);
    void leave(name);
    if (take === 'mine') addBehaviour(readHeader({ name, text }).title, text);
  }

  return {
    store,
    add: changes(addBehaviour, ''),
    addShared: changes(addShared, ''),
    askForTitle: changes((adding: boolean) => store.setState({ adding }), undefined),
    duplicate: changes(duplicate, undefined),
    describe: changes(describe, undefined),
    remove: changes(remove, Promise.resolve()),
    restore: changes(restore, undefined),
    forgetDeleted: () => store.setState({ deleted: null }),
    reorder: changes(reorder, Promise.resolve()),
    move: changes(move, Promise.resolve()),
    turn: changes(turn, undefined),
    takeStarter: changes(takeStarter, Promise.resolve()),
    settleConflict: changes(settleConflict, undefined),
    tryOut: starters.tryOut,
    end: starters.end,
  };
}
