/** The compiler behind messages, apart from the language worker: what takes longer than a key never holds up a key. */
import { compile } from '../core/language/compile';
import { CompileRequest } from './language-protocol';
import type { LanguageReply } from './language-reply';

/** Answers each message through `post`; one that is no request is answered with null under its id. */
export function serveCompiler(post: (reply: LanguageReply) => void): (message: unknown) => void {
  return (message) => {
    const parsed = CompileRequest.safeParse(message);
    if (parsed.success) post({ id: parsed.data.id, answer: compile(parsed.data.source, 'traced') });
    else post({ id: (message as { id?: number } | null)?.id ?? -1, answer: null });
  };
}
