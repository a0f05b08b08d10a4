/** Which aspects scenarios and grids look at, and how they are told as values. */
import { equal, type Value } from '../form/value';
import type { PartState } from '../session/step';
import { entryOf, isToldName, SAID } from '../wire/aspects';
import type { PartExpectation } from './definition';

export type ExpectedAspect = keyof PartState & keyof PartExpectation;

/** Those whose change is expected from then on: not what only follows from another one, or from a check. */
export const ASPECTS: readonly ExpectedAspect[] = SAID.filter(isToldName).filter(
  (name) => entryOf(name).expected,
);

/** An aspect as scenarios spell it: options by their keys. Undefined where the part has none of it. */
export function spelled(part: PartState, aspect: ExpectedAspect): Value | undefined {
  if (aspect === 'options') return part.options?.map(({ key }) => key) ?? null;
  return part[aspect] as Value | undefined;
}

/** The aspects that differ, as they are now; an aspect that the part did not have before has changed. */
export function changedAspects(before: PartState | undefined, after: PartState): PartExpectation {
  const changed: Record<string, Value> = {};
  for (const aspect of ASPECTS) {
    const now = after[aspect] as Value | undefined;
    if (now === undefined || equal(now, before?.[aspect])) continue;
    // Options of the definition stand again: which these are is not known here.
    if (aspect === 'options' && after.options == null) continue;
    changed[aspect] = spelled(after, aspect)!;
  }
  return changed as PartExpectation;
}
