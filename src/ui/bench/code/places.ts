/** Going to places in the code, the editor that is open there, and where names are used. */
import type { StoreApi } from 'zustand/vanilla';
import type { Reference } from '@/core/language/answers';
import { readHeader } from '@/core/script/header';
import { baseName } from '@/core/script/script-name';
import type { Uses } from '@/core/structure/uses';
import { placeOf, type Line } from '@/core/wire/line';
import { get as ask } from '../../api';
import type { BenchCore } from '../common/core';
import type { Screen } from '../common/screen';
import type { Scripts } from './scripts';
import type { CodeState, EditorHandle, UsePlace } from './state';

export function places(
  { form, pathOf, saving }: BenchCore,
  screen: Screen,
  { getState: get, setState: set }: StoreApi<CodeState>,
  { find }: Scripts,
) {
  let handle: EditorHandle | null = null;
  let waitingText: string | null = null;

  /** Puts a text at the cursor of the editor, which is opened for it. */
  function insert(text: string): void {
    if (screen.store.getState().pane !== 'code') screen.showPane('code');
    if (handle === null) waitingText = text;
    else handle.insert(text);
  }

  /** The editor that is open says so; gives what says that it no longer is. */
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
    await saving.saveAll();
    const reply = await ask<Uses>(`${pathOf('uses')}?${new URLSearchParams({ part }).toString()}`);
    if (!reply.ok) return screen.complain(reply.says);
    const { code, scenarios } = reply.body;
    const used = [
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
    set({ uses: { of: part, places: used } });
  }

  function usesOfName(of: string, found: readonly Reference[]): void {
    set({
      uses: {
        of,
        places: found.map(({ file, line, text }): UsePlace => ({
          is: 'line',
          form: form().name,
          behaviour: file,
          title: readHeader({ name: file, text: find(file)!.text }).title,
          line,
          text,
        })),
      },
    });
  }

  /** Goes to a line of a behaviour, or of the shared module that it is in; `takesFocus` into the editor too. */
  function goTo(behaviour: string, at: Line, takesFocus = true): void {
    const { script, line } = placeOf(at, behaviour);
    const name = get().behaviours.find(
      (entry) => entry.name === script || baseName(entry.name) === script,
    )?.name;
    if (name !== undefined) open(name, { line, takesFocus });
  }

  /** Opens a behaviour, at a line of it where one is given. */
  function open(name: string, at: { line: number; takesFocus: boolean } | null = null): void {
    set(({ goTo: last }) => ({
      active: name,
      ...(at !== null && {
        uses: null,
        goTo: { behaviour: name, ...at, count: (last?.count ?? 0) + 1 },
      }),
    }));
    screen.showPane('code');
  }

  return {
    insert,
    attach,
    /** Where the cursor was in each behaviour when its editor was closed. */
    cursors: new Map<string, number>(),
    usesOfPart,
    usesOfName,
    closeUses: () => set({ uses: null }),
    goTo,
    open,
    goToOffset: (script: string, offset: number) =>
      goTo(script, find(script)!.text.slice(0, offset).split('\n').length),
    /** Tells the editor that is open. */
    editor: (what: Exclude<keyof EditorHandle, 'insert'>) => handle?.[what](),
  };
}
