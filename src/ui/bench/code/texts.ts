/** The texts of the behaviours as they save themselves, and what an earlier visit left of them unsaved. */
import { isOwn } from '@/core/script/script-name';
import { Draft, put } from '../../draft/draft';
import { forgetLeft, keepUnder } from '../../draft/kept';
import { leftBeside } from '../../draft/left';
import type { BenchCore } from '../common/core';
import type { LeftText } from '../common/left';
import type { Scripts } from './scripts';

export function benchTexts(
  { material, pathOfScript }: BenchCore,
  { find, change }: Scripts,
  textChanged: (name: string) => void,
) {
  const keyOf = (name: string) =>
    isOwn(name) ? `behaviour ${material.form.name}/${name}` : `script ${name}`;
  const drafts = new Map(
    material.behaviours.map(({ name, text, revision }) => [name, draftOf(name, text, revision)]),
  );

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

  return {
    all: (): Iterable<Draft<string>> => drafts.values(),
    /** Takes a text that was typed or brought in; it is saved, checked and compiled. */
    edit(name: string, text: string): void {
      if (find(name)?.text === text) return;
      drafts.get(name)!.edit(text);
      textChanged(name);
    },
    /** Takes a text that was saved elsewhere, unless there is one here that is not saved yet. */
    adopt(name: string, text: string, revision: number): void {
      if (drafts.get(name)?.adopt(text, revision) === true) textChanged(name);
    },
    settle(name: string, take: 'mine' | 'theirs'): void {
      drafts.get(name)!.settle(take);
      if (take === 'theirs') textChanged(name);
    },
    /** A new behaviour begins to save itself. */
    begin: (name: string) => void drafts.set(name, draftOf(name, '', 0)),
    forget(name: string): void {
      drafts.get(name)?.end(true);
      drafts.delete(name);
    },
    /** Behaviours go on saving themselves under other names. */
    renamed(renames: readonly { from: string; to: string }[]): void {
      const moved = renames.map(({ from, to }) => [to, drafts.get(from)!] as const);
      for (const { from } of renames) {
        drafts.get(from)!.end(true);
        drafts.delete(from);
      }
      for (const [to, { value, revision }] of moved) drafts.set(to, draftOf(to, value, revision));
    },
    async findLeft(): Promise<LeftText[]> {
      const found = await Promise.all(
        [...drafts].map(async ([name, { value }]): Promise<LeftText[]> => {
          const left = await leftBeside(keyOf(name), value);
          return left === null ? [] : [{ name, text: left.value, at: left.at }];
        }),
      );
      return found.flat();
    },
    takeLeft(name: string, text: string | null): void {
      if (text !== null && drafts.has(name)) this.edit(name, text);
      void forgetLeft(keyOf(name));
    },
  };
}
