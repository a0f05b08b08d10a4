/** Editing the structure of the form, and renaming through everything that names a part. */
import type { Form } from '@/core/form/definition';
import type { editedSoundly } from '@/core/structure/checked-edit';
import { InvalidEdit, placeOf, type Edit, type PartName } from '@/core/structure/edit';
import { advance, redo, undo, type History } from '@/core/structure/history';
import type { Step } from '@/core/session/step';
import { call } from '../api';
import type { Draft } from '../draft/draft';
import type { BenchCore } from './core';
import type { Renaming, TakenOver } from './state';

export interface StructureWork {
  draft: Draft<Form>;
  isSaved(): Promise<'all' | 'structure' | 'behaviours'>;
  /** Replays, runs the scenarios and checks. */
  doAllAgain(): Promise<void>;
}

export function structureEdits(
  { get, set, material, languageWorker, pathOf }: BenchCore,
  { draft, isSaved, doAllAgain }: StructureWork,
) {
  let editSoundly: typeof editedSoundly | null = null;
  let renew: (over: TakenOver) => void = () => undefined;

  /** Edits the structure; what cannot be done is said and leaves it as it is. */
  function editStructure(edit: Edit): boolean {
    const { structure } = get();
    try {
      putForm(
        advance(structure.history, editSoundly!(structure.history.present, edit, material.tables)),
      );
      return true;
    } catch (caught) {
      if (!(caught instanceof InvalidEdit)) throw caught;
      set({ structure: { ...structure, says: caught.message } });
      return false;
    }
  }

  function putForm(history: History<Form>): void {
    const { structure } = get();
    const { selected } = structure;
    const kept = selected !== null && placeOf(history.present, selected) !== null ? selected : null;
    set((state) => ({
      material: { ...state.material, form: history.present },
      structure: { ...structure, history, selected: kept, says: null },
    }));
    draft.edit(history.present);
    void resurround();
  }

  /** The new form is in force at once: for the editor, in the live form, for the scenarios. */
  async function resurround(): Promise<void> {
    await languageWorker().surround(get().material);
    await doAllAgain();
  }

  /** Ends a conflict with one of the two structures. */
  function settleStructure(take: 'mine' | 'theirs'): void {
    draft.settle(take);
    const { history } = get().structure;
    if (take === 'theirs' && history.present !== draft.value)
      putForm(advance(history, draft.value));
  }

  /**
   * Renames a part, or a key of its options, everywhere; or only plans it. Scripts, scenarios and records change with it,
   * so the bench is made again, with the steps done so far.
   */
  async function rename(
    { part, key, to }: { part: PartName; key: string | null; to: string },
    apply: boolean,
  ): Promise<Renaming | { says: string }> {
    if ((await isSaved()) !== 'all')
      return {
        says: 'Something is not saved yet. Renaming reaches everywhere, so all has to be saved first.',
      };
    const reply = await call<Renaming>('POST', pathOf('rename'), { part, key, to, apply });
    if (!reply.ok) return { says: reply.says };
    if (reply.body.applied) {
      const { sort } = reply.body.plan;
      const bare = part.split('.').at(-1)!;
      const now = key !== null ? part : part.slice(0, part.length - bare.length) + to;
      const { open, steps, active } = get();
      const renamed = { part: now, isKey: key !== null, from: key ?? bare, to };
      const done = { title: '-', open, steps };
      const { renameInScenario, rekeyInScenario } = await import('@/core/structure/in-scenario');
      const { steps: translated } =
        key === null
          ? renameInScenario(done, part, to, sort)
          : rekeyInScenario(done, part, key, to, sort);
      renew({ open, steps: translated as Step[], active, pane: 'structure', renamed });
    }
    return reply.body;
  }

  async function undoRenaming(): Promise<void> {
    const { renamed } = get().structure;
    if (renamed === null) return;
    const { part, isKey, from, to } = renamed;
    const reply = await rename({ part, key: isKey ? to : null, to: from }, true);
    if ('says' in reply)
      set(({ structure }) => ({ structure: { ...structure, says: reply.says } }));
  }

  return {
    editStructure,
    /** What edits are done with comes with the pane for them: it is as large as the rest of the bench. */
    editStructureBy: (edit: typeof editedSoundly) => void (editSoundly = edit),
    takeForm: (form: Form) => putForm(advance(get().structure.history, form)),
    settleStructure,
    rename,
    /** Who makes a new bench of fresh material, which takes over what it is given. */
    renew: (over: TakenOver) => renew(over),
    renewBy: (by: (over: TakenOver) => void) => void (renew = by),
    undoRenaming,
    forgetRenaming: () => set(({ structure }) => ({ structure: { ...structure, renamed: null } })),
    undoStructure: () => putForm(undo(get().structure.history)),
    redoStructure: () => putForm(redo(get().structure.history)),
    /** Chooses a part; `atLabel` when its label is to be written. */
    select: (selected: PartName | null, atLabel = false) =>
      set(({ structure }) => ({ structure: { ...structure, selected, says: null, atLabel } })),
  };
}
