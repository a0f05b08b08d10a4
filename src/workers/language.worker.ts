/** The editor's brain in a worker: keeps TypeScript warm over the behaviours of one form. */
import { compile } from '../core/language/compile';
import { formatted } from '../core/language/format';
import { libs } from '../core/language/generated/libs';
import { FormLanguage } from '../core/language/service';
import { LanguageRequest, type LanguageReply } from './language-protocol';

const language = new FormLanguage(libs);

function answer(request: LanguageRequest): unknown {
  switch (request.do) {
    case 'surround':
      language.surround(request.surface);
      return null;
    case 'put':
      language.put(request.source);
      return { compiled: compile(request.source, 'traced'), diagnoses: request.diagnose ? language.diagnose(request.source.name) : null };
    case 'remove':
      language.remove(request.name);
      return null;
    case 'diagnose':
      return language.diagnose(request.name);
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
    case 'format':
      return formatted(request.source, request.position);
    case 'idleParts':
      return language.idleParts();
    case 'map':
      return language.map();
  }
}

addEventListener('message', (event: MessageEvent<unknown>) => {
  const parsed = LanguageRequest.safeParse(event.data);
  if (!parsed.success) {
    const reply: LanguageReply = { id: (event.data as { id?: number } | null)?.id ?? -1, answer: null };
    return postMessage(reply);
  }
  void Promise.resolve(answer(parsed.data)).then((given) => {
    const reply: LanguageReply = { id: parsed.data.id, answer: given };
    postMessage(reply);
  });
});
