/**
 * What changes outside of the bench while its workspace is kept the same as a folder: a script that is not being typed in
 * is taken and runs at once, with the steps done so far; whatever else changed makes the bench anew.
 */
import { get as ask } from '../api';
import type { BenchCore } from './core';
import type { FolderState, TakenOver } from './state';

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

export interface OutsideWork {
  /** Takes a text that was saved elsewhere, unless there is one here that is not saved yet. */
  adopt(name: string, text: string, revision: number): void;
  renew(over: TakenOver): void;
  structureRevision(): number;
}

export function outside(
  { get, set, pathOf, pathOfScript }: BenchCore,
  { adopt, renew, structureRevision }: OutsideWork,
) {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let over = false;
  let around: string | null = null;
  /** Whether something was other at the last look: what is saved here differs for a moment, until the answer has come. */
  let before = false;

  async function look(): Promise<void> {
    const reply = await ask<LiveState>(pathOf('live'));
    if (over) return;
    if (reply.ok) await compare(reply.body);
    if (!over) timer = setTimeout(() => void look(), PAUSE);
  }

  async function compare(now: LiveState): Promise<void> {
    if (JSON.stringify(now.folder) !== JSON.stringify(get().folder)) set({ folder: now.folder });
    around ??= now.around;
    const { behaviours, scenarios } = get();
    const changed = behaviours.filter(
      ({ name, revision }) => now.scripts[name] !== undefined && now.scripts[name] > revision,
    );
    const here = new Set(behaviours.map(({ name }) => name));
    const isOther =
      now.definition !== structureRevision() ||
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
    const { structure } = get();
    if (
      isOther &&
      structure.saving.state === 'saved' &&
      get().behaviours.every(({ saving }) => saving.state === 'saved')
    ) {
      const { open, steps, active, pane } = get();
      // The bench that comes looks for itself.
      over = true;
      renew({ open, steps, active, pane, renamed: null });
    }
  }

  async function fetchScript(name: string): Promise<void> {
    const reply = await ask<{ revision: number; text: string }[]>(
      `${pathOfScript(name)}/revisions`,
    );
    const [last] = reply.ok ? reply.body : [];
    if (last !== undefined && !over) adopt(name, last.text, last.revision);
  }

  return {
    begin: () => void look(),
    end: () => {
      over = true;
      clearTimeout(timer);
    },
  };
}
