/**
 * The language service behind messages: keeps TypeScript warm over the behaviours of one form. Compiling is a worker's of
 * its own (`compiler-serve.ts`), so that a keystroke never waits for it.
 */
import { formatted } from '../core/language/format';
import { libs } from '../core/language/generated/libs';
import { FormLanguage } from '../core/language/service';
import { LanguageRequest } from './language-protocol';
import type { LanguageReply } from './language-reply';

/** Answers each message through `post`; one that is no request is answered with null under its id. */
export function serveLanguage(
  post: (reply: LanguageReply) => void,
): (message: unknown) => Promise<void> {
  const language = new FormLanguage(libs);
  return async (message) => {
    const parsed = LanguageRequest.safeParse(message);
    if (!parsed.success)
      return post({ id: (message as { id?: number } | null)?.id ?? -1, answer: null });
    post({ id: parsed.data.id, answer: await answer(language, parsed.data) });
  };
}

function answer(language: FormLanguage, request: LanguageRequest): unknown {
  switch (request.do) {
    case 'surround':
      language.surround(request.surface);
      return null;
    case 'put':
      language.put(request.source);
      return null;
    case 'remove':
      language.remove(request.name);
      return null;
    case 'diagnose':
      language.put(request.source);
      return language.diagnose(request.source.name);
    case 'complete':
      language.put(request.source);
      return language.complete(request.source.name, request.position);
    case 'describe':
      return language.describe(request.name, request.position, request.label);
    case 'explain':
      return language.explain(request.name, request.position);
    case 'signature':
      language.put(request.source);
      return language.signature(request.source.name, request.position);
    case 'define':
      return language.define(request.name, request.position);
    case 'references':
      return language.references(request.name, request.position);
    case 'rename':
      return language.rename(request.name, request.position, request.to);
    case 'compilerFixes':
      return language.compilerFixes(request.name, request.at);
    case 'format':
      return formatted(request.source, request.position);
    case 'idleParts':
      return language.idleParts();
    case 'map':
      return language.map();
  }
}
