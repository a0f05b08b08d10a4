/** Editing the structure of the form, and renaming through everything that names a part. */
import { createStore } from 'zustand/vanilla';
import type { Form } from '@/core/form/definition';
import type { editedSoundly } from '@/core/structure/checked-edit';
import { InvalidEdit, placeOf, type Edit, type PartName } from '@/core/structure/edit';
import { advance, begin, redo, undo, type History } from '@/core/structure/history';
import type { Step } from '@/core/session/step';
import { Draft, put } from '../../draft/draft';
import { forgetLeft, keepUnder } from '../../draft/kept';
import { leftBeside } from '../../draft/left';
import type { FormRoom } from '../form/form';
import type { BenchCore } from '../common/core';
import type { LeftForm } from '../common/left';
import type { Renaming, StructureState } from './state';
import type { Renamed } from '../common/material';

export function benchStructure(core: BenchCore, formRoom: FormRoom, renamed: Renamed | null) {
  const { material, languageWorker, pathOf, changes, changed, saving, save } = core;
  const store = createStore<StructureState>(() => ({
    history: begin(material.form),
    selected: renamed?.part ?? null,
    saving: { state: 'saved' },
    says: null,
    atLabel: false,
    renamed,
    isReady: false,
  }));
  const { getState: get, setState: set } = store;
  const key = `structure ${material.form.name}`;
  const draft: Draft<Form> = new Draft({
    value: material.form,
    revision: material.revision,
    send: (value, from) =>
      put<Form>(pathOf('definition'), { form: value, from }, ({ theirs }) => theirs),
    keep: keepUnder(key),
    onChange: () => set({ saving: draft.saving }),
  });
  saving.add('structure', () => [draft]);
  let editing: typeof editedSoundly | null = null;

  /** Loads what edits are made with, which is as large as the rest of the bench. */
  async function prepare(): Promise<void> {
    editing ??= (await import('@/core/structure/checked-edit')).editedSoundly;
    set({ isReady: true });
  }

  /** Edits the structure; what cannot be done is said and leaves it as it is. */
  function edit(change: Edit): boolean {
    const { history } = get();
    try {
      putForm(advance(history, editing!(history.present, change, material.tables)));
      return true;
    } catch (caught) {
      if (!(caught instanceof InvalidEdit)) throw caught;
      set({ says: caught.message });
      return false;
    }
  }

  function putForm(history: History<Form>): void {
    const { selected } = get();
    const kept = selected !== null && placeOf(history.present, selected) !== null ? selected : null;
    core.putForm(history.present);
    set({ history, selected: kept, says: null });
    draft.edit(history.present);
    void resurround();
  }

  /** The new form is in force at once: for the editor, in the live form, for the scenarios. */
  async function resurround(): Promise<void> {
    await languageWorker().surround(core.store.getState().material);
    await changed.tell(null);
  }

  const takeForm = (form: Form) => putForm(advance(get().history, form));

  /** Ends a conflict with one of the two structures. */
  function settle(take: 'mine' | 'theirs'): void {
    draft.settle(take);
    if (take === 'theirs' && get().history.present !== draft.value) takeForm(draft.value);
  }

  /**
   * Renames a part, or a key of its options, everywhere; or only plans it. Scripts, scenarios and records change with it,
   * so the bench is made again, with the steps done so far.
   */
  async function rename(
    { part, key: option, to }: { part: PartName; key: string | null; to: string },
    apply: boolean,
  ): Promise<Renaming | { says: string }> {
    if ((await saving.notSaved()) !== null)
      return {
        says: 'Something is not saved yet. Renaming reaches everywhere, so all has to be saved first.',
      };
    const reply = await save<Renaming>('POST', pathOf('rename'), { part, key: option, to, apply });
    if (!reply.ok) return { says: reply.says };
    if (reply.body.applied) {
      const { sort } = reply.body.plan;
      const bare = part.split('.').at(-1)!;
      const now = option !== null ? part : part.slice(0, part.length - bare.length) + to;
      const { open, steps } = formRoom.session.state;
      const done = { title: '-', open, steps: [...steps] };
      const { renameInScenario, rekeyInScenario } = await import('@/core/structure/in-scenario');
      const { steps: translated } =
        option === null
          ? renameInScenario(done, part, to, sort)
          : rekeyInScenario(done, part, option, to, sort);
      core.renew({
        steps: translated as Step[],
        pane: 'structure',
        renamed: { part: now, isKey: option !== null, from: option ?? bare, to },
      });
    }
    return reply.body;
  }

  async function undoRenaming(): Promise<void> {
    const { renamed: last } = get();
    if (last === null) return;
    const { part, isKey, from, to } = last;
    const reply = await rename({ part, key: isKey ? to : null, to: from }, true);
    if ('says' in reply) set({ says: reply.says });
  }

  async function findLeft(): Promise<LeftForm | null> {
    const left = await leftBeside(
      key,
      core.form(),
      async () => (await import('@/core/form/definition')).FormSchema,
    );
    return left === null ? null : { form: left.value, at: left.at };
  }

  return {
    store,
    prepare,
    edit: changes(edit, false),
    settle: changes(settle, undefined),
    rename: changes(rename, Promise.resolve({ says: '' })),
    undoRenaming: changes(undoRenaming, Promise.resolve()),
    forgetRenaming: () => set({ renamed: null }),
    undo: changes(() => putForm(undo(get().history)), undefined),
    redo: changes(() => putForm(redo(get().history)), undefined),
    /** Chooses a part; `atLabel` when its label is to be written. */
    select: (selected: PartName | null, atLabel = false) => set({ selected, says: null, atLabel }),
    /** Of the definition as it was saved last. */
    revision: () => draft.revision,
    findLeft,
    takeLeft(form: Form | null): void {
      if (form !== null) takeForm(form);
      void forgetLeft(key);
    },
  };
}
