/** Why an expectation was not met, in a sentence: who said last what it is instead. The whole answer is `debugging/`. */
import { nameOnTape, seenAt } from '../scenario/seen';
import type { Miss } from '../scenario/run-scenario';
import type { Answer } from '../session/step';
import { standingClaims, Tape } from '../tape/tape';
import type { Names } from '../tape/words';
import { lineInWords } from '../wire/line';

/** `answers` are of the traced session that the miss is of. Null where there is nothing to say. */
export function whyMissed(
  { part, aspect, after }: Miss,
  answers: readonly Answer[],
  names: Pick<Names, 'behaviour'>,
): string | null {
  if (part.startsWith('@') || aspect === null) return null;
  const tape = new Tape(answers.slice(0, after + 1).flatMap((answer) => answer.tape));
  const name = nameOnTape(seenAt(answers, after), part);
  const word = standingClaims(tape)
    .get(name)
    ?.find((one) => one.aspect === aspect);
  if (word !== undefined)
    return `${names.behaviour(word.behaviour)}, ${lineInWords(word.line)}, said so last.`;
  const last = tape.lifeOf(name).findLast((effect) => effect.aspect === aspect);
  if (last === undefined)
    return 'No behaviour has said anything of it, so it is as the form defines it.';
  return last.by === 'person'
    ? 'A person entered it, and no behaviour has changed it since.'
    : 'No behaviour says it any more, so it is as the form defines it.';
}
