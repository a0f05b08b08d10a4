/**
 * What a worker replies to its engine. Read without Zod: this is all that a page to fill a form in would load it for, and
 * it is a tenth of what such a page may weigh. Answers are made by the session itself, so only their envelope is read.
 */
import { isObject } from '../form/value';
import type { Answer } from '../session/step';
import type { Line } from '../wire/line';
import type { Inspection } from './inspector';
import type { Listens } from './sandbox';

/** Of an answer, what became of its step. */
export type BriefAnswer = Pick<Answer, 'refused' | 'submit' | 'toParent' | 'errors'>;

export type Reply =
  | { type: 'listens'; id: number; listens: Listens }
  | { type: 'answers'; id: number; answers: (Answer | BriefAnswer)[] }
  /** A session with a mutant, and the mutants whose places it reached. */
  | { type: 'tried'; id: number; answers: Answer[]; reached: number[] }
  | { type: 'inspected'; id: number; inspection: Inspection }
  /** The machine died; how is for the log alone. */
  | { type: 'died'; id: number; how: string }
  | { type: 'failed'; id: number; how: string }
  /** It is still at work. */
  | { type: 'alive' }
  /** Where the machine is, while somebody looks for the script that got stuck. */
  | { type: 'at'; behaviour: string; line: Line };

const SHAPES: { readonly [T in Reply['type']]: (reply: Record<string, unknown>) => boolean } = {
  listens: ({ id, listens }) => typeof id === 'number' && isObject(listens),
  answers: ({ id, answers }) =>
    typeof id === 'number' && Array.isArray(answers) && answers.every(isObject),
  tried: ({ id, answers, reached }) =>
    typeof id === 'number' &&
    Array.isArray(answers) &&
    answers.every(isObject) &&
    Array.isArray(reached),
  inspected: ({ id, inspection }) => typeof id === 'number' && isObject(inspection),
  died: ({ id, how }) => typeof id === 'number' && typeof how === 'string',
  failed: ({ id, how }) => typeof id === 'number' && typeof how === 'string',
  alive: () => true,
  at: ({ behaviour, line }) =>
    typeof behaviour === 'string' &&
    (typeof line === 'number' || (typeof line === 'string' && /^shared\/.+:\d+$/.test(line))),
};

/** Reads a message of the worker's. Throws a TypeError for one that is no reply. */
export function readReply(message: unknown): Reply {
  const shape =
    isObject(message) && typeof message.type === 'string' && Object.hasOwn(SHAPES, message.type)
      ? SHAPES[message.type as Reply['type']]
      : null;
  if (shape === null || !shape(message as Record<string, unknown>))
    throw new TypeError('the worker sent something that is no reply');
  return message as Reply;
}
