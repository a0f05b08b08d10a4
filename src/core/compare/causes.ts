/** Differences with the same cause are listed once, by the one that is easiest to follow. */
import { lengthOf } from '../explore/finding';
import { keyOf, type Difference } from './difference';

/** The lines that decide; where no line does, the part itself, which the definition or a table decides. */
function causeOf({ lines: { before, after }, part, aspect }: Difference): string {
  if (before === null && after === null) return keyOf({ part, aspect });
  const name = (at: typeof before) => (at === null ? '' : `${at.behaviour}:${at.tie ?? at.line}`);
  return `${name(before)} ${name(after)}`;
}

/** A cause before what follows from it, then the shorter way. */
export function byCause(differences: readonly Difference[]): Difference[] {
  const inOrder = differences.toSorted(
    (a, b) => Number(a.follows !== null) - Number(b.follows !== null) || lengthOf(a) - lengthOf(b),
  );
  const listed = new Map<string, Difference>();
  const byKey = new Map<string, Difference>();
  for (const one of inOrder) {
    const cause = causeOf(one);
    const known = listed.get(cause) ?? (one.follows === null ? undefined : byKey.get(one.follows));
    if (known === undefined) {
      const made = { ...one };
      listed.set(cause, made);
      if (!byKey.has(keyOf(one))) byKey.set(keyOf(one), made);
      continue;
    }
    const names = new Set(known.also.map(keyOf)).add(keyOf(known));
    if (!names.has(keyOf(one)))
      known.also = [...known.also, { part: one.part, aspect: one.aspect }];
    if (!byKey.has(keyOf(one))) byKey.set(keyOf(one), known);
  }
  return [...listed.values()];
}
