/** The editor's brain in a worker: keeps TypeScript warm over the behaviours of one form. */
import { compile } from '../core/language/compile';
import { libs } from '../core/language/generated/libs';
import { FormLanguage } from '../core/language/service';
import { LanguageRequest, type LanguageReply } from './language-protocol';

const language = new FormLanguage(libs);

function answer(request: LanguageRequest): unknown {
  switch (request.do) {
    case 'surround':
      language.setTypings(request.typings);
      return null;
    case 'put':
      language.put(request.source);
      return { compiled: compile(request.source, 'traced'), diagnoses: request.diagnose ? language.diagnose(request.source.name) : null };
    case 'diagnose':
      return language.diagnose(request.name);
    case 'complete':
      language.put(request.source);
      return language.complete(request.source.name, request.position);
    case 'explain':
      return language.explain(request.name, request.position);
  }
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  const parsed = LanguageRequest.safeParse(event.data);
  const reply: LanguageReply = parsed.success
    ? { id: parsed.data.id, answer: answer(parsed.data) }
    : { id: (event.data as { id?: number } | null)?.id ?? -1, answer: null };
  postMessage(reply);
});
