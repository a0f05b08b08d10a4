/** What a worker for scripts replies. Read without Zod, which pages have no other use for. */
import { isObject } from '../core/form/value';

export interface LanguageReply {
  id: number;
  answer: unknown;
}

/** Reads a message of the worker's. Throws a TypeError for one that is no reply. */
export function readLanguageReply(message: unknown): LanguageReply {
  if (!isObject(message) || typeof message.id !== 'number')
    throw new TypeError('the worker sent something that is no reply');
  return { id: message.id, answer: message.answer };
}
