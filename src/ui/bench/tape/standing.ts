/** Standing on moments of the recording, going from one to the next, and making the past the present. */
import {
  alongTape,
  nearest,
  placeAt,
  stepOf,
  stopsOf,
  withinRun,
  type Standing,
  type Wanted,
  type Way,
} from '@/core/debugging/travel';
import type { DetailedRun } from '@/core/session/detail';
import type { Run } from '@/core/tape/tape';
import { inWords, type DebugCore } from './state';

export function standingOn(
  { code, form, looking, debug, set, tapes, wholeTape, stepsTo, attempt }: DebugCore,
  refreshWatched: (mine: () => boolean) => Promise<void>,
) {
  const { session } = form;
  // Whoever travels by arrow keys goes on with them.
  const showLine = (script: string, line: number) => code.goTo(script, line, false);

  /** Counts up at each return to now, which ends what keys pressed before it still lead to. */
  let journey = 0;

  /** Stands on a moment, or goes back to now. */
  function standOn(standing: Standing | null): Promise<void> {
    if (standing === null) {
      journey++;
      // An attempt of its own, so that a journey that is still under way ends here.
      return attempt('standing', () => {
        set({ standing: null, detailed: null, look: null, watched: [] });
        session.lookAt(session.state.steps.length);
        return refreshNow();
      });
    }
    return attempt('standing', async (mine) => {
      const entry = wholeTape().entry(standing.entry);
      if (entry === null) return;
      const runs = entry.type === 'run' ? [entry.n] : [];
      const found = await looking.inspect(
        { runs, moments: [{ entry: standing.entry, detail: standing.detail }] },
        { steps: stepsTo(standing.entry) },
      );
      if (!mine()) return;
      const detailed = found.runs[0] ?? null;
      session.lookAt(stepOf(tapes(), standing.entry));
      set({
        standing,
        detailed: entry.type === 'run' ? detailed : null,
        sites: looking.sites(),
        look: found.looks[0] ?? null,
        open: true,
      });
      showPlace(standing, detailed);
      await refreshWatched(mine);
    });
  }

  /** Brings the line that is stood on into sight. */
  function showPlace(standing: Standing, detailed: DetailedRun | null): void {
    if (detailed !== null && standing.detail !== null) {
      const place = placeAt(detailed, standing.detail);
      const site = place === null ? undefined : debug().sites.get(place.script)?.[place.site];
      if (site !== undefined) showLine(place!.script, site.line);
      return;
    }
    const tape = wholeTape();
    const entry = tape.entry(standing.entry)!;
    const run = entry.type === 'run' ? (entry as Run) : tape.causeOf(entry);
    const line = 'line' in entry ? entry.line : null;
    if (run?.type === 'run' && typeof line === 'number') showLine((run as Run).behaviour, line);
  }

  /** Keys may come faster than answers: each goes on from where the one before it led. */
  let travelled: Promise<void> = Promise.resolve();

  /** Goes into, out of, to the next or the last; `shown` are the entries that are listed. */
  function go(way: Way, shown: readonly number[]): Promise<void> {
    const own = journey;
    travelled = travelled
      .then(() => (own === journey ? goOnce(way, shown) : undefined))
      .catch(() => undefined);
    return travelled;
  }

  async function goOnce(way: Way, shown: readonly number[]): Promise<void> {
    const { standing, detailed } = debug();
    const tape = wholeTape();
    if (standing === null) {
      const last = shown.at(-1);
      if (last !== undefined) await standOn({ entry: last, detail: null });
      return;
    }
    if (standing.detail !== null && detailed !== null) {
      const within = withinRun(detailed, standing.detail, way);
      if (within !== null) return standOn(within);
      if (way === 'out' || way === 'last') return standOn({ entry: standing.entry, detail: null });
      if (way === 'into') return;
      const next = alongTape(tape, shown, standing.entry, 'next');
      return next === null ? undefined : standOn(next);
    }
    if (way === 'into' && detailed !== null) {
      const [first] = stopsOf(detailed);
      if (first !== undefined) return standOn({ entry: standing.entry, detail: first.detail });
    }
    const next = alongTape(tape, shown, standing.entry, way);
    if (next !== null) await standOn(next);
  }

  function goNearest(wanted: Wanted, forward: boolean): Promise<void> {
    const from = debug().standing?.entry ?? (forward ? -1 : Infinity);
    const found = nearest(wholeTape(), from, wanted, forward);
    if (found === null) {
      set({ says: forward ? 'There is none after this.' : 'There is none before this.' });
      return Promise.resolve();
    }
    return standOn(found);
  }

  /** Everything as it is now, for the values, while nobody stands in the past. */
  async function refreshNow(): Promise<void> {
    const { open, standing, tab } = debug();
    if (!open || standing !== null) return;
    const { at } = session.state;
    if (tab !== 'values' && tab !== 'watches') return;
    try {
      const found = await looking.inspect(
        { moments: [{ entry: null, detail: null }] },
        { steps: session.state.steps.slice(0, at) },
      );
      if (debug().standing === null && session.state.at === at)
        set({ look: found.looks[0] ?? null });
      await refreshWatched(() => debug().standing === null);
    } catch (caught) {
      set({ says: inWords(caught) });
    }
  }

  /** Makes the step that is looked at the last one; those behind it can be brought back. */
  async function goOnFromHere(): Promise<void> {
    const { steps, at } = session.state;
    set({ dropped: steps.slice(at) });
    const going = session.goOnFrom(at);
    await standOn(null);
    await going;
  }

  async function bringBack(): Promise<void> {
    const { dropped } = debug();
    set({ dropped: [] });
    await session.add(dropped);
  }

  return { standOn, go, goNearest, refreshNow, goOnFromHere, bringBack };
}
