/** What scripts did, in short: after a step, and a behaviour so far. */
import type { Answer } from '../session/step';
import { Tape } from './tape';
import { entryInWords, type Names } from './words';

/** One line on what a step caused: its effects by scripts, what failed, what waits. */
export function causedInWords(answer: Answer | undefined, names: Names, who: string): string {
  if (answer === undefined) return 'The form is being opened.';
  const tape = new Tape(answer.tape);
  const told = tape.entries.filter(
    (entry) =>
      entry.type === 'error' ||
      entry.type === 'refused' ||
      entry.type === 'message' ||
      entry.type === 'outcome' ||
      entry.type === 'call' ||
      (entry.type === 'effect' &&
        entry.by !== 'person' &&
        !('struck' in entry) &&
        !('covered' in entry)),
  );
  if (told.length === 0) return 'Scripts changed nothing.';
  const shown = told.slice(0, 4).map((entry) => entryInWords(entry, names, who));
  return `${shown.join(' · ')}${told.length > 4 ? ` · and ${told.length - 4} more` : ''}`;
}

/** What a behaviour steered and how often it ran, in the session on the bench. */
export function didInWords(behaviour: string, tape: Tape): string {
  const runs = tape.entries.filter(
    (entry) => entry.type === 'run' && entry.behaviour === behaviour,
  );
  const numbers = new Set(runs.map(({ n }) => n));
  const steers = new Set(
    tape.entries.flatMap((entry) =>
      entry.type === 'effect' && entry.cause !== null && numbers.has(entry.cause)
        ? [entry.part]
        : [],
    ),
  );
  const what =
    steers.size === 0
      ? 'steers nothing yet'
      : steers.size === 1
        ? `steers ${[...steers][0]}`
        : `steers ${steers.size} parts`;
  return runs.length === 0
    ? what
    : `${what} · ran ${runs.length === 1 ? 'once' : `${runs.length} times`}`;
}
