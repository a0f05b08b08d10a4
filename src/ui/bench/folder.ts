/**
 * What changes outside of the bench while its workspace is kept the same as a folder: a script that is not being typed in
 * is taken and runs at once, with the steps done so far; whatever else changed makes the bench anew.
 */
import { get as ask } from '../api';
import { createStore } from 'zustand/vanilla';
import type { Conflict } from '@/core/workspace/syncing';
import type { Code } from './code/code';
import type { BenchCore } from './common/core';
import type { Tests } from './tests/tests';

/** A live folder, as the server tells of it. */
export interface FolderState {
  folder: string;
  errors: string[];
  conflicts: Conflict[];
}

/** What the server has now, by revisions. */
interface LiveState {
  folder: FolderState | null;
  definition: number | null;
  scripts: Record<string, number>;
  scenarios: Record<string, number>;
  around: string;
}

/** Real milliseconds between two questions. */
const PAUSE = 300;

export function benchFolder(
  core: BenchCore,
  code: Code,
  tests: Pick<Tests, 'store'>,
  structure: { revision(): number },
) {
  const { pathOf, pathOfScript, saving } = core;
  /** How the folder of the workspace is; null where it has none. */
  const store = createStore<{ folder: FolderState | null }>(() => ({ folder: null }));
  let timer: ReturnType<typeof setTimeout> | undefined;
  let over = false;
  let around: string | null = null;
  /** Whether the server had something else at the last look. What is saved here differs for a moment, until its answer comes. */
  let before = false;

  async function look(): Promise<void> {
    const reply = await ask<LiveState>(pathOf('live'));
    if (over) return;
    if (reply.ok) await compare(reply.body);
    if (!over) timer = setTimeout(() => void look(), PAUSE);
  }

  async function compare(now: LiveState): Promise<void> {
    if (JSON.stringify(now.folder) !== JSON.stringify(store.getState().folder))
      store.setState({ folder: now.folder });
    around ??= now.around;
    const { behaviours } = code.store.getState();
    const { scenarios } = tests.store.getState();
    const changed = behaviours.filter(
      ({ name, revision }) => now.scripts[name] !== undefined && now.scripts[name] > revision,
    );
    const here = new Set(behaviours.map(({ name }) => name));
    const isOther =
      now.definition !== structure.revision() ||
      now.around !== around ||
      Object.keys(now.scripts).some((name) => !name.startsWith('behaviours/') && !here.has(name)) ||
      behaviours.some(({ name, revision }) => revision > 0 && now.scripts[name] === undefined) ||
      scenarios.length !== Object.keys(now.scenarios).length ||
      scenarios.some(({ name, revision }) => now.scenarios[name] !== revision);
    for (const { name, saving } of changed) if (saving.state === 'saved') await fetchScript(name);
    const still = before;
    before = isOther;
    if (!still) return;
    // What is typed here and not saved yet is never lost for it.
    if (!isOther || saving.unsavedNow() !== null) return;
    // The bench that comes looks for itself.
    over = true;
    core.renew({});
  }

  async function fetchScript(name: string): Promise<void> {
    const reply = await ask<{ revision: number; text: string }[]>(
      `${pathOfScript(name)}/revisions`,
    );
    const [last] = reply.ok ? reply.body : [];
    if (last !== undefined && !over) code.texts.adopt(name, last.text, last.revision);
  }

  return {
    store,
    begin: () => void look(),
    end: () => {
      over = true;
      clearTimeout(timer);
    },
  };
}
