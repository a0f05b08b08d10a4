/**
 * A session as seen from outside at one moment: the answers so far, added up. What a scenario compares, the live form
 * shows and `tavro play` prints.
 */
import type { Failure } from '../session/errors';
import type { Answer, LogLine, Message, PartState, SubmitOutcome } from '../session/step';

export interface Seen {
  parts: Record<string, PartState>;
  page: string | null;
  replaced: string | null;
  notice: Answer['notice'];
  failing: Failure[];
  submit: SubmitOutcome | null;
  changed: boolean;
}

export const NOTHING_SEEN: Seen = { parts: {}, page: null, replaced: null, notice: null, failing: [], submit: null, changed: false };

/** What is seen after an answer; the former is left as it was. */
export function seenAfter(before: Seen, answer: Answer): Seen {
  let { parts } = before;
  const names = Object.keys(answer.changes);
  if (names.length > 0) {
    parts = { ...parts };
    for (const name of names) parts[name] = { ...parts[name], ...answer.changes[name] } as PartState;
  }
  const { page, replaced, notice, failing, changed } = answer;
  return { parts, page, replaced, notice, failing, changed, submit: answer.submit ?? before.submit };
}

/** What was said since some moment. */
export interface Heard {
  messages: Message[];
  log: LogLine[];
  errors: Failure[];
  refused: { step: number; why: string }[];
}

export function nothingHeard(): Heard {
  return { messages: [], log: [], errors: [], refused: [] };
}
