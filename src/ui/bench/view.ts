/** What is looked at on the bench: panes, places in the code, where names are used, and the editor that is open. */
import { createStore } from 'zustand/vanilla';
import { readHeader } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import { placeOf, type Line } from '@/core/wire/line';
import type { Place } from '@/core/language/language-service';
import type { Uses } from '@/core/structure/uses';
import { get } from '../api';
import type { BenchCore } from './core';
import type { BenchState, EditorHandle, UsePlace } from './state';

export function benchView(
  { get: state, set, form, pathOf, behaviourOf, complain }: BenchCore,
  { saveAll }: { saveAll(): Promise<void> },
) {
  /** The part that the pointer is on, in the code or in the live form; apart, so that moving it re-renders nothing. */
  const light = createStore<{ part: string | null; from: 'code' | 'form'; reveal: boolean }>(
    () => ({ part: null, from: 'form', reveal: false }),
  );
  let handle: EditorHandle | null = null;
  let waitingText: string | null = null;
  /** Where the cursor was in each behaviour when its editor was closed. */
  const cursors = new Map<string, number>();

  /** Puts a text at the cursor of the editor, which is opened for it. */
  function insert(text: string): void {
    if (state().pane !== 'code') set({ pane: 'code' });
    if (handle === null) waitingText = text;
    else handle.insert(text);
  }

  /** The editor that is open says so, and that it no longer is. */
  function attach(editor: EditorHandle): () => void {
    handle = editor;
    const text = waitingText;
    waitingText = null;
    // Once it has the text it was opened with.
    if (text !== null) setTimeout(() => editor.insert(text));
    return () => {
      if (handle === editor) handle = null;
    };
  }

  /** What uses a part, in every form, as it is saved. */
  async function usesOfPart(part: string): Promise<void> {
    await saveAll();
    const reply = await get<Uses>(`${pathOf('uses')}?${new URLSearchParams({ part }).toString()}`);
    if (!reply.ok) return complain(reply.says);
    const { code, scenarios } = reply.body;
    const places = [
      ...code.flatMap(({ form: of, behaviour, title, lines, text }) =>
        lines.map((line, i): UsePlace => ({
          is: 'line',
          form: of,
          behaviour,
          title,
          line,
          text: text[i]!,
        })),
      ),
      ...scenarios.map(({ form: of, name, title, steps }): UsePlace => ({
        is: 'scenario',
        form: of,
        name,
        title,
        steps,
      })),
    ];
    set({ uses: { of: part, places } });
  }

  function usesOfName(of: string, places: readonly Place[]): void {
    set({
      uses: {
        of,
        places: places.map(({ file, line, text }): UsePlace => ({
          is: 'line',
          form: form().name,
          behaviour: file,
          title: readHeader({ name: file, text: behaviourOf(file).text }).title,
          line,
          text,
        })),
      },
    });
  }

  /** Goes to a line of a behaviour, or of the shared module that it stands in; `takesFocus` into the editor too. */
  function goTo(behaviour: string, at: Line, takesFocus = true): void {
    const { script, line } = placeOf(at, behaviour);
    const name = state().behaviours.find(
      (entry) => entry.name === script || baseName(entry.name) === script,
    )?.name;
    if (name !== undefined)
      set(({ goTo: last }) => ({
        uses: null,
        active: name,
        pane: 'code',
        goTo: { behaviour: name, line, takesFocus, count: (last?.count ?? 0) + 1 },
      }));
  }

  function goToOffset(script: string, offset: number): void {
    goTo(script, behaviourOf(script).text.slice(0, offset).split('\n').length);
  }

  return {
    goToOffset,
    light,
    cursors,
    insert,
    attach,
    usesOfPart,
    usesOfName,
    goTo,
    /** Lights up a part on the other side; nothing is rendered again for it. */
    shine: (part: string | null, from: 'code' | 'form') => {
      if (light.getState().part !== part || light.getState().from !== from)
        light.setState({ part, from, reveal: false });
    },
    /** Shows a part in the outline and the live form, and what its life was. */
    reveal: (part: string) => {
      set({ asked: { part, aspect: null }, side: 'form' });
      light.setState({ part, from: 'code', reveal: true });
    },
    /** Tells the editor that is open. */
    editor: (what: Exclude<keyof EditorHandle, 'insert'>) => handle?.[what](),
    closeUses: () => set({ uses: null }),
    /** Asks for the title of a new behaviour, or no more. */
    askForBehaviour: (adding: boolean) => set({ adding }),
    forgetDeleted: () => set({ deleted: null }),
    /** Opens a page of the handbook beside the code. */
    openHandbook: (page: string = state().handbook) => set({ side: 'handbook', handbook: page }),
    showForm: () => set({ side: 'form' }),
    showPane: (pane: BenchState['pane']) => set({ pane }),
    choose: (active: string) => set({ active, pane: 'code' }),
    showNames: (names: boolean) => set({ names }),
    say: (text: string) => set({ notice: { tone: 'info', text } }),
    dismiss: () => set({ notice: null }),
  };
}
