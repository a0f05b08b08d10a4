/** Findings of several searches as one list: what one of them found stays found, by its shortest way. */
import { causesOf } from './causes';
import { betterOf, keyOf, type Finding } from './finding';

export function merged(...lists: readonly (readonly Finding[])[]): Finding[] {
  const byKey = new Map<string, Finding>();
  for (const finding of lists.flat()) {
    const key = keyOf(finding);
    const known = byKey.get(key);
    byKey.set(key, known === undefined ? finding : betterOf(known, finding));
  }
  return causesOf([...byKey.values()]);
}
