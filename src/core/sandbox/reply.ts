/**
 * What a worker replies to its engine. Pages read it, so it is written with the small edition of Zod: the whole one, with
 * the schemas of forms, is more than all else that they load for it.
 */
import * as z from 'zod/mini';
import type { Answer } from '../session/step';
import type { Listens } from './sandbox';

/** Of an answer, what became of its step. */
export type BriefAnswer = Pick<Answer, 'refused' | 'submit' | 'toParent'>;

/** Answers are made by the session itself; only their envelope is read again. */
export const ReplySchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('listens'),
    id: z.number(),
    listens: z.custom<Listens>((value) => typeof value === 'object'),
  }),
  z.object({
    type: z.literal('answers'),
    id: z.number(),
    answers: z.array(z.custom<Answer | BriefAnswer>((value) => typeof value === 'object')),
  }),
  /** The machine died; how is for the log alone. */
  z.object({ type: z.literal('died'), id: z.number(), how: z.string() }),
  z.object({ type: z.literal('failed'), id: z.number(), how: z.string() }),
  /** It is still at work. */
  z.object({ type: z.literal('alive') }),
  /** Where the machine is, while somebody looks for the script that got stuck. */
  z.object({ type: z.literal('at'), behaviour: z.string(), line: z.number() }),
]);
export type Reply = z.infer<typeof ReplySchema>;
