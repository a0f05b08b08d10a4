/** Findings of several searches as one list: what one of them found stays found, by its shortest way. */
import { causesOf } from './causes';
import { keyOf, type Finding } from './finding';

/** The better of two of one name: wrong rather than a hint, then the shorter way. */
function better(one: Finding, other: Finding): Finding {
  if (one.level !== other.level) return one.level === 'wrong' ? one : other;
  return other.way.steps.length < one.way.steps.length ? other : one;
}

export function merged(...lists: readonly (readonly Finding[])[]): Finding[] {
  const byKey = new Map<string, Finding>();
  for (const finding of lists.flat()) {
    const key = keyOf(finding);
    const known = byKey.get(key);
    byKey.set(key, known === undefined ? finding : better(known, finding));
  }
  return causesOf([...byKey.values()]);
}
