/**
 * Looking into what was done on the bench: standing on moments of the recording, asking why and why not, breakpoints
 * and watches, the prompt, other conditions. What is looked at is run again in an engine of its own (`inspecting.ts`).
 */
import type { Filter } from '@/core/debugging/filter';
import { usualAspect } from '@/core/debugging/question';
import { addressNow, nameOnTape, partSeen, seenAt } from '@/core/scenario/seen';
import { Tape } from '@/core/tape/tape';
import type { Code } from '../code/code';
import type { BenchCore } from '../common/core';
import type { FormRoom } from '../form/form';
import { asking } from './questions';
import { breakpoints } from './breakpoints';
import { comparing } from './comparing';
import { inspecting } from './inspecting';
import { standingOn } from './standing';
import { debugCore, type DrawerTab } from './state';
import { usualAnswers } from './usual-answer';

export type TapeRoom = ReturnType<typeof benchTape>;

export function benchTape(core: BenchCore, code: Code, form: FormRoom) {
  const looking = inspecting(core, code, form);
  const shared = debugCore(core, code, form, looking);
  const { debug, set } = shared;
  const stops = breakpoints(shared);
  const { refreshWatched, refreshHits, ...ofStops } = stops;
  const stands = standingOn(shared, refreshWatched);
  const { refreshNow, ...ofStands } = stands;
  const { askWhy, backInTrail } = asking(shared);

  /** After each replay: what was looked at may be gone, and breakpoints are hit elsewhere. */
  form.replayed.listen(() => {
    const { standing, question } = debug();
    if (standing !== null) set({ standing: null, detailed: null, look: null });
    if (question !== null)
      set({ question: null, decision: null, whyNot: [], notOffered: [], trail: [] });
    void refreshHits();
    void refreshNow();
  });
  form.stepped.listen(() => void refreshNow());

  function showDrawer(open: boolean, tab: DrawerTab = debug().tab): void {
    shared.keepOpen({ open, tab });
    void refreshNow();
  }

  const filter = (changes: Partial<Filter>) => set({ filter: { ...debug().filter, ...changes } });

  /** Opens the drawer and asks why an aspect of a part is as it is; the usual one where none is named. */
  function ask(part: string, aspect: string | null = null): void {
    const { answers, at } = form.session.state;
    const tape = new Tape(answers.slice(0, at + 1).flatMap((answer) => answer.tape));
    const seen = seenAt(answers, at);
    const name = nameOnTape(seen, part);
    showDrawer(true);
    // The form as a whole and a submission are no part that entries are of.
    filter({ part: name.startsWith('@') ? null : name });
    void askWhy({
      part: name,
      aspect:
        aspect ?? usualAspect(tape, name, partSeen(seen, core.form(), addressNow(seen, name))),
      before: null,
    });
  }

  return {
    store: shared.store,
    remember: shared.remember,
    end: looking.end,
    ask,
    askWhy,
    backInTrail,
    filter,
    showDrawer,
    ...ofStands,
    ...ofStops,
    ...usualAnswers(shared),
    ...comparing(shared),
  };
}
