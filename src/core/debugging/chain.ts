/** A decision with those behind it, down to the steps of people, the opening and the definition. */
import { decide, questionOf } from './decide';
import type { Decision } from './decision';
import type { Ground } from './ground';
import type { Question } from './question';

export interface Chain extends Decision {
  /** For each cause in turn, why it was so; null for what has no cause of its own, or was told before. */
  because: (Chain | null)[];
}

/** At most so many decisions are named for one question. */
const MOST_TOLD = 100;

/** Asks about a part, and then about everything that the decision depends on. */
export async function decideInTurn(ground: Ground, question: Question): Promise<Chain> {
  const told = new Set<string>();
  const ask = async (about: Question): Promise<Chain> => {
    told.add(keyOf(about));
    const decision = await decide(ground, about);
    const because: (Chain | null)[] = [];
    for (const cause of decision.causes) {
      const next = questionOf(cause, decision);
      because.push(
        next === null || told.has(keyOf(next)) || told.size >= MOST_TOLD ? null : await ask(next),
      );
    }
    return { ...decision, because };
  };
  return ask(question);
}

function keyOf({ part, aspect, before }: Question): string {
  return `${before ?? ''} ${aspect} ${part}`;
}
