/**
 * The language service as a worker offers it: keeps TypeScript warm over the behaviours of one form. Compiling is a
 * worker's of its own (`compiler-serve.ts`), so that a keystroke never waits for it.
 */
import { changeBetween } from '../core/compare/change';
import { mentionsOf } from '../core/explore/mentions';
import { formatted } from '../core/language/format';
import { libs } from '../core/language/generated/libs';
import { FormLanguage } from '../core/language/language-service';
import { withAsked } from '../core/language/watches';
import { checkedCalls, type Calls } from './checked-calls';
import { LANGUAGE_CALLS } from './language-calls';

/** A script that is there while something is asked between runs. */
const ASKED = '00-asked.ts';

export type LanguageCalls = ReturnType<typeof languageCalls>;

/** A language service without behaviours, by the functions that others may call. */
export function languageCalls() {
  const language = new FormLanguage(libs);
  return checkedCalls(LANGUAGE_CALLS, {
    surround: (surface) => language.surround(surface),
    put: (source) => language.put(source),
    remove: (name) => language.remove(name),
    diagnose(source) {
      language.put(source);
      return language.diagnose(source.name);
    },
    complete(source, position) {
      language.put(source);
      return language.complete(source.name, position);
    },
    completeAsked(source, line, expression) {
      // Between runs nothing but the form is in sight; a script of its own, for as long as this takes, has that alone.
      const of = source ?? { name: ASKED, text: 'on.load(() => {\n0;\n});' };
      const asked = withAsked(of, source === null ? 2 : line, expression);
      if (asked === null) return [];
      language.put({ name: of.name, text: asked.text });
      const found = language.complete(of.name, asked.from + expression.length);
      if (source === null) language.remove(ASKED);
      else language.put(source);
      return found;
    },
    describe: (name, position, label) => language.describe(name, position, label),
    explain: (name, position) => language.explain(name, position),
    signature(source, position) {
      language.put(source);
      return language.signature(source.name, position);
    },
    define: (name, position) => language.define(name, position),
    references: (name, position) => language.references(name, position),
    rename: (name, position, to) => language.rename(name, position, to),
    compilerFixes: (name, at) => language.compilerFixes(name, at),
    format: (source, position) => formatted(source, position),
    idleParts: () => language.idleParts(),
    mentions: (sources) => mentionsOf(sources),
    change: (before, after) => changeBetween(before, after),
    map: () => language.map(),
  } satisfies Calls<typeof LANGUAGE_CALLS>);
}
