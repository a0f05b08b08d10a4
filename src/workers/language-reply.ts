/** What a worker for scripts replies. Read without Zod, which pages have no other use for. */
export interface LanguageReply {
  id: number;
  answer: unknown;
}

/** Reads a message of the worker's. Throws a TypeError for one that is no reply. */
export function readLanguageReply(message: unknown): LanguageReply {
  if (
    typeof message !== 'object' ||
    message === null ||
    !('id' in message) ||
    typeof message.id !== 'number'
  )
    throw new TypeError('the worker sent something that is no reply');
  return { id: message.id, answer: 'answer' in message ? message.answer : undefined };
}
