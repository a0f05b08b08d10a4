/** The same steps under other conditions, in other orders of answers, and with today's code: what differs at the end. */
import { differences } from '@/core/debugging/differences';
import { inversions, orders } from '@/core/debugging/orders';
import type { Open } from '@/core/scenario/definition';
import { seenAt } from '@/core/scenario/seen';
import type { Material } from '@/core/session/material';
import type { Answer, Step } from '@/core/session/step';
import { engineInWorker } from '@/workers/engine-in-browser';
import { call } from '../../api';
import { sessionKey, type Compared, type DebugCore } from './state';

export function comparing({ core, form: room, looking, debug, set, keepOpen, attempt }: DebugCore) {
  const { form } = core;
  const { session } = room;

  /** Does the same steps under other conditions and tells what differs at the end. */
  function compare(title: string, changes: Partial<Open>): Promise<void> {
    return attempt('comparison', async (mine) => {
      const open = { ...session.state.open, ...changes };
      const { answers } = await looking.inspect({ answers: true }, { open });
      if (mine()) tell([comparedWith(title, answers)]);
    });
  }

  /** Plays a recording with what its form runs with today. */
  function compareWithToday(recording: number): Promise<void> {
    keepOpen({ open: true, tab: 'compare' });
    return attempt('comparison', async (mine) => {
      const reply = await call<Material>('GET', `/api/recordings/${recording}/today`);
      if (!reply.ok) throw new Error(reply.says);
      const engine = engineInWorker();
      try {
        await engine.load(reply.body);
        const answers = await engine.play(room.openingFor(session.state.open), session.state.steps);
        if (mine()) tell([comparedWith('today’s code', answers)]);
      } finally {
        engine.close();
      }
    });
  }

  /** At most so many results are listed. */
  const MOST = 8;

  /** Puts results before those of the same session. */
  function tell(compared: readonly Compared[]): void {
    const of = sessionKey(session.state);
    const before = debug().comparedOf === of ? debug().compared : [];
    set({ compared: [...compared, ...before].slice(0, MOST), comparedOf: of });
  }

  function comparedWith(title: string, answers: readonly Answer[]): Compared {
    const now = seenAt(session.state.answers, session.state.answers.length - 1);
    const other = seenAt(answers, answers.length - 1);
    return {
      title,
      differences: differences(now, other, form()),
      errors: answers.flatMap(({ errors }) => errors.map(({ says: what }) => what)),
    };
  }

  /** Lets the calls that wait be answered in every order, and tells which orders end differently. */
  function tryOrders(): Promise<void> {
    return attempt('comparison', async (mine) => {
      const { answers, steps } = session.state;
      const calls = (answers.at(-1)?.waiting ?? []).flatMap((run) => run.calls);
      if (calls.length < 2)
        throw new Error(
          'Fewer than two calls wait now. Do steps until several do, then try their orders.',
        );
      const ends = new Map<string, { order: number[]; answers: Answer[] }[]>();
      for (const order of orders(calls.length)) {
        const { answers: came } = await looking.inspect(
          { answers: true },
          { steps: [...steps, ...answering(calls, order)] },
        );
        const seen = seenAt(came, came.length - 1);
        const key = JSON.stringify([seen.parts, seen.rows, seen.page]);
        const known = ends.get(key);
        if (known === undefined) ends.set(key, [{ order, answers: came }]);
        else known.push({ order, answers: came });
      }
      if (!mine()) return;
      const [usual, ...others] = [...ends.values()];
      const first = seenAt(usual![0]!.answers, usual![0]!.answers.length - 1);
      const total = [...ends.values()].reduce((sum, some) => sum + some.length, 0);
      const compared = others.map((some): Compared => {
        const shortest = some.toSorted((a, b) => inversions(a.order) - inversions(b.order))[0]!;
        const last = seenAt(shortest.answers, shortest.answers.length - 1);
        return {
          title: `answered as ${shortest.order.map((call) => calls[call]!.name).join(', then ')} (${some.length} of ${total} orders)`,
          differences: differences(first, last, form()),
          errors: [],
        };
      });
      set({
        comparedOf: sessionKey(session.state),
        compared:
          compared.length > 0
            ? compared
            : [
                {
                  title: `all ${total} orders of ${calls.length} answers`,
                  differences: [],
                  errors: [],
                },
              ],
      });
    });
  }

  return { compare, compareWithToday, tryOrders };
}

/** Steps that answer calls in an order, each as the service itself would. */
function answering(calls: readonly { name: string }[], order: readonly number[]): Step[] {
  const left = calls.map((_, i) => i);
  return order.map((call) => {
    const { name } = calls[call]!;
    // Of several calls of one name, the place among those that still wait.
    const which = left.filter((one) => calls[one]!.name === name).indexOf(call);
    left.splice(left.indexOf(call), 1);
    return { answer: name, usual: true, which };
  });
}
