/** What is edited on the bench as it saves itself: the behaviours and the structure, and what an earlier visit left unsaved. */
import { isOwn } from '@/core/script/script-name';
import type { Form } from '@/core/form/definition';
import { equal, type Value } from '@/core/form/value';
import { sendsOnLeaving } from '../api';
import { Draft, put } from '../draft/draft';
import { forgetLeft, keepUnder, leftUnder } from '../draft/kept';
import type { BenchCore } from './core';

export interface DraftsWork {
  /** The text of a behaviour is another one. */
  textChanged(name: string): void;
  /** A structure that was left is taken over. */
  takeForm(form: Form): void;
}

export function benchDrafts(
  { get, set, material, form, pathOf, pathOfScript, behaviourOf, change }: BenchCore,
  { textChanged, takeForm }: DraftsWork,
) {
  const keyOf = (name: string) =>
    isOwn(name) ? `behaviour ${material.form.name}/${name}` : `script ${name}`;
  const STRUCTURE = `structure ${material.form.name}`;
  const drafts = new Map(
    material.behaviours.map(({ name, text, revision }) => [name, draftOf(name, text, revision)]),
  );
  const structure: Draft<Form> = new Draft({
    value: material.form,
    revision: material.revision,
    send: (value, from) =>
      put<Form>(pathOf('definition'), { form: value, from }, ({ theirs }) => theirs),
    keep: keepUnder(STRUCTURE),
    onChange: () =>
      set((state) => ({ structure: { ...state.structure, saving: structure.saving } })),
  });

  /** A behaviour's text as it saves itself. */
  function draftOf(name: string, text: string, revision: number): Draft<string> {
    const draft: Draft<string> = new Draft({
      value: text,
      revision,
      send: (value, from) =>
        put<string>(pathOfScript(name), { text: value, from }, ({ theirs }) => ({
          content: (theirs as { text: string }).text,
          revision: (theirs as { revision: number }).revision,
        })),
      keep: keepUnder(keyOf(name)),
      onChange: () =>
        change(name, { text: draft.value, revision: draft.revision, saving: draft.saving }),
    });
    return draft;
  }

  async function saveAll(): Promise<void> {
    await Promise.all([structure, ...drafts.values()].map((draft) => draft.save()));
  }

  /** Whether something is unsaved that leaving the page does not save for certain. */
  function unsaved(): boolean {
    const all: Draft<unknown>[] = [
      structure as Draft<unknown>,
      ...(drafts.values() as Iterable<Draft<unknown>>),
    ];
    return all.some(
      ({ saving, value }) =>
        saving.state === 'unsaved' ||
        saving.state === 'conflict' ||
        (saving.state === 'waiting' && !sendsOnLeaving(value)),
    );
  }

  /** What an earlier visit left unsaved is offered. */
  async function findLeft(): Promise<void> {
    const found = await Promise.all(
      get().behaviours.map(async ({ name, text }) => ({
        name,
        text,
        left: await leftUnder<string>(keyOf(name)),
      })),
    );
    const behaviours = found.flatMap(({ name, text, left }) =>
      left === null || left.value === text ? [] : [{ name, text: left.value, at: left.at }],
    );
    const kept = await leftUnder<Form>(STRUCTURE);
    const read =
      kept === null || equal(kept.value as unknown as Value, form() as unknown as Value)
        ? null
        : (await import('@/core/form/definition')).FormSchema.safeParse(kept.value);
    const leftForm = read?.success === true ? read.data : null;
    if (behaviours.length === 0 && leftForm === null) return;
    set({
      left: {
        at: Math.max(...behaviours.map(({ at }) => at), leftForm === null ? 0 : kept!.at),
        behaviours,
        form: leftForm,
      },
    });
  }

  /** Brings back what an earlier visit left unsaved, or throws it away. */
  function takeLeft(take: boolean): void {
    const { left } = get();
    if (left === null) return;
    set({ left: null });
    if (take) {
      for (const { name, text } of left.behaviours) if (drafts.has(name)) edit(name, text);
      if (left.form !== null) takeForm(left.form);
    }
    for (const { name } of left.behaviours) void forgetLeft(keyOf(name));
    void forgetLeft(STRUCTURE);
  }

  function edit(name: string, text: string): void {
    if (behaviourOf(name).text === text) return;
    drafts.get(name)!.edit(text);
    textChanged(name);
  }

  /** Whether everything is saved, after it was tried. */
  async function isSaved(): Promise<'all' | 'structure' | 'behaviours'> {
    await saveAll();
    if (get().structure.saving.state !== 'saved') return 'structure';
    return get().behaviours.every(({ saving }) => saving.state === 'saved') ? 'all' : 'behaviours';
  }

  return {
    structure,
    saveAll,
    isSaved,
    unsaved,
    findLeft,
    takeLeft,
    edit,
    /** A new behaviour begins to save itself. */
    begin: (name: string) => void drafts.set(name, draftOf(name, '', 0)),
    forget: (name: string) => {
      drafts.get(name)?.end(true);
      drafts.delete(name);
    },
    adopt: (name: string, text: string, revision: number) =>
      drafts.get(name)?.adopt(text, revision) === true,
    settle: (name: string, take: 'mine' | 'theirs') => drafts.get(name)!.settle(take),
    /** Behaviours go on saving themselves under other names. */
    renamed: (renames: readonly { from: string; to: string }[]) => {
      const moved = renames.map(({ from, to }) => [to, drafts.get(from)!] as const);
      for (const { from } of renames) {
        drafts.get(from)!.end(true);
        drafts.delete(from);
      }
      for (const [to, { value, revision }] of moved) drafts.set(to, draftOf(to, value, revision));
    },
  };
}
