/** Asking why an aspect of a part is as it is, and why not otherwise. */
import type { Ground } from '@/core/debugging/ground';
import type { Question } from '@/core/debugging/question';
import { entriesUntil } from '@/core/debugging/travel';
import { Tape } from '@/core/tape/tape';
import { inIdleTime } from '../../lazily';
import type { DebugCore } from './state';

const loadDeciding = () => import('./deciding');
// Whoever asks why while the server is out of reach gets an answer.
inIdleTime(loadDeciding);

export function asking({ core, code, form: room, looking, debug, set, tapes, attempt }: DebugCore) {
  const { form, material, languageWorker } = core;
  const { session } = room;

  /** The evidence for an answer: the tape up to the moment that is looked at. */
  function ground({ groundOver }: Awaited<ReturnType<typeof loadDeciding>>): Ground {
    const { standing } = debug();
    const entries = tapes()
      .slice(0, session.state.at + 1)
      .flat();
    return groundOver(
      {
        form: form(),
        tape: new Tape(standing === null ? entries : entriesUntil(entries, standing)),
        sites: looking.sites(),
      },
      (wanted) =>
        looking.inspect(wanted, { steps: session.state.steps.slice(0, session.state.at) }),
      standing ?? undefined,
    );
  }

  /** Asks why an aspect of a part is as it is, and why not otherwise. `inTurn` keeps the question before it to go back to. */
  function askWhy(question: Question, inTurn = false): Promise<void> {
    const { question: before, trail } = debug();
    set({
      question,
      trail: inTurn && before !== null ? [...trail, before] : [],
      decision: null,
      whyNot: [],
      notOffered: [],
      asking: true,
    });
    room.mark({ part: question.part, aspect: question.aspect });
    return attempt('why', async (mine) => {
      try {
        // The sites come with the first run in detail.
        await looking.inspect({}, { steps: [] });
        const deciding = await loadDeciding();
        const { decide, leftOut, otherLines, whyNot } = deciding;
        const on = ground(deciding);
        const decision = await decide(on, question);
        if (!mine()) return;
        set({ decision });
        const writers = await languageWorker().writers(code.scripts.sources());
        const others = await whyNot(on, writers, question);
        const notOffered = await leftOut(on, decision, material.tables);
        if (mine()) set({ whyNot: otherLines(others, decision), notOffered });
      } finally {
        if (mine()) set({ asking: false });
      }
    });
  }

  function backInTrail(): void {
    const { trail } = debug();
    const last = trail.at(-1);
    if (last === undefined) return;
    void askWhy(last).then(() => set({ trail: trail.slice(0, -1) }));
  }

  return { askWhy, backInTrail };
}
