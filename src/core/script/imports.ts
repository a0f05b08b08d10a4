/** Which shared modules scripts import from, read without the compiler. */
import { takingPart, type Source } from './header';
import { baseName, isModule, MODULES } from './script-name';

/** Also where a comment says so, which does no harm. */
const FROM = new RegExp(`\\bfrom\\s*(['"])(${MODULES}[^'"\\n]+)\\1`, 'g');

/** The modules that a text names behind `from`, as `shared/dates`, each once. */
export function importsOf(text: string): string[] {
  return [...new Set([...text.matchAll(FROM)].map((match) => match[2]!))];
}

/**
 * The modules among sources that the behaviours import from that are on, those that these import from, and so on; each behind
 * those that it imports itself. Of a circle the one that is met first comes last.
 */
export function modulesUsed<T extends Source>(sources: readonly T[]): T[] {
  const modules = new Map(
    sources.flatMap((source) =>
      isModule(source.name) ? [[baseName(source.name), source] as const] : [],
    ),
  );
  const used = new Set<T>();
  const met = new Set<string>();
  const take = (text: string): void => {
    for (const name of importsOf(text)) {
      const found = modules.get(name);
      if (found === undefined || met.has(name)) continue;
      met.add(name);
      take(found.text);
      used.add(found);
    }
  };
  for (const { text } of takingPart(sources)) take(text);
  return [...used];
}

/** The modules through which a module imports from itself, as `shared/a`, `shared/b`; null where it does not. */
export function circleOf(name: string, sources: readonly Source[]): string[] | null {
  const texts = new Map(sources.map((source) => [baseName(source.name), source.text]));
  const seen = new Set<string>();
  const search = (at: string, way: readonly string[]): string[] | null => {
    for (const next of importsOf(texts.get(at) ?? '')) {
      if (next === name) return [...way, at];
      if (seen.has(next)) continue;
      seen.add(next);
      const found = search(next, [...way, at]);
      if (found !== null) return found;
    }
    return null;
  };
  return search(name, []);
}
