/** Compiled scripts for pages, kept by their text: most visits find every script as the last one left it. */
import { compile, type Mode, type Source } from '../core/language/compile';
import type { CompiledScript } from '../core/session/ties';

const kept = new Map<string, CompiledScript>();
const MOST_KEPT = 1000;

export function compiled({ name, text }: Source, mode: Mode): CompiledScript {
  const key = `${mode} ${name}\n${text}`;
  const known = kept.get(key);
  if (known !== undefined) return known;
  if (kept.size >= MOST_KEPT) kept.clear();
  const made = compile({ name, text }, mode);
  kept.set(key, made);
  return made;
}
