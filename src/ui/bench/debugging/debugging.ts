/**
 * Looking into what was done on the bench: standing on moments of the recording, asking why and why not, breakpoints
 * and watches, the prompt, other conditions. What is looked at is run again in an engine of its own (`inspecting.ts`).
 */
import type { Filter } from '@/core/debugging/filter';
import type { Step } from '@/core/session/step';
import type { BenchCore } from '../core';
import { answers } from './answers';
import { asking } from './asking';
import { breakpoints } from './breakpoints';
import { comparing } from './comparing';
import { inspecting } from './inspecting';
import { standingOn } from './standing';
import { debugCore, type DrawerTab } from './state';

export function debugging(
  core: BenchCore,
  live: { replay(): Promise<void>; lookAt(at: number): void; step(step: Step): Promise<void> },
  goTo: (script: string, line: number) => void,
) {
  const looking = inspecting(core);
  const shared = debugCore(core, looking);
  const { debug, set } = shared;
  const stops = breakpoints(shared, live);
  const { refreshWatched, refreshHits, ...ofStops } = stops;
  const stands = standingOn(shared, { ...live, goTo, refreshWatched });
  const { refreshNow } = stands;

  /** After each replay: what was looked at may be gone, and breakpoints are hit elsewhere. */
  function replayed(): void {
    const { standing, question } = debug();
    if (standing !== null) set({ standing: null, detailed: null, look: null });
    if (question !== null)
      set({ question: null, decision: null, whyNot: [], notOffered: [], trail: [] });
    void refreshHits();
    void refreshNow();
  }

  return {
    debug: shared.store,
    rememberDebug: shared.remember,
    endDebug: looking.end,
    replayedAgain: replayed,
    ...stands,
    ...ofStops,
    ...answers(shared),
    ...asking(shared),
    ...comparing(shared),
    filterTape: (changes: Partial<Filter>) => set({ filter: { ...debug().filter, ...changes } }),
    showDrawer: (open: boolean, tab: DrawerTab = debug().tab) => {
      shared.keepOpen({ open, tab });
      void refreshNow();
    },
  };
}
