/**
 * Two sessions from one opening in which the same was entered have to end the same. What keeps this silent on right code
 * stands here, each condition with its reason.
 */
import { isEmpty, equal, type Value } from '../../form/value';
import { keyOf, type Kind, type Level } from '../finding';
import { isOpen, type Exploration } from '../exploration';
import { columnOf, wholeOf } from '../part-names';
import { isSound, withoutWaits, type HeldStep, type Ran } from '../play';
import type { Said } from '../said';
import {
  defaultOf,
  differenceInWords,
  differencesOf,
  isUntouched,
  type Difference,
} from '../state';

export interface SameEndOptions {
  /** What differs is a hint at most. */
  atMost?: Level;
}

/** Reports what differs between the ends of two sessions. */
export function sameEnd(
  search: Exploration,
  kind: Kind,
  one: Ran,
  other: Ran,
  way: string,
  { atMost = 'wrong' }: SameEndOptions = {},
): void {
  if (!isSound(one) || !isSound(other)) return;
  const { form } = search.ground;
  const steps = [...one.steps, ...other.steps];
  const entered = new Set(steps.flatMap((step) => ('set' in step ? [columnOf(step.set)] : [])));
  // What a person entered and is saved off screen is told by itself.
  let differences = differencesOf(form, one, other).filter(
    ({ part, aspect }) => aspect !== 'hiddenValue' || !entered.has(columnOf(part)),
  );
  if (differences.length === 0) return;

  // Rows that a person added and a script took away again are lost, as what is emptied on the way is.
  const added = new Set(steps.flatMap((step) => ('addRow' in step ? [step.addRow] : [])));
  if (differences.some(({ part, aspect }) => aspect === 'exists' && added.has(wholeOf(part))))
    return;

  // Fields that follow each other: where scripts wrote more than one of those entered, the one entered last wins.
  const contested = new Set(
    [...one.said, ...other.said].flatMap(({ part, aspect }) =>
      aspect === 'value' && entered.has(part) ? [part] : [],
    ),
  );
  const isContested = ({ part, aspect }: Difference) =>
    aspect === 'value' && contested.has(columnOf(part));
  if (contested.size > 1 && differences.some(isContested)) return;

  const isOwn = ({ part, aspect, one: a, other: b }: Difference) => {
    if (aspect !== 'value') return false;
    const column = columnOf(part);
    const values = [a, b] as Value[];
    // A default that nobody touched and that is gone is no input.
    const byDefault = defaultOf(form, part);
    if (
      !entered.has(column) &&
      byDefault !== null &&
      values.some(isEmpty) &&
      values.some((value) => equal(value, byDefault))
    )
      return false;
    if (entered.has(column) && values.some((value) => isUntouched(form, part, value))) return true;
    // Typed over what is computed, or computed over what was typed: the last one wins.
    if (entered.has(column) && contested.has(column)) return true;
    // A record that brings what people may also enter by hand, and that is computed now.
    const brought = one.opening.record?.values[part] ?? null;
    if (
      !isEmpty(brought) &&
      values.some((value) => equal(value, brought)) &&
      (search.covered.wasEverOpen(part) ||
        // Whoever did it last is named, and somebody else did it before.
        search.said(part, aspect, one, other).some(({ asked }) => asked.includes('person')))
    )
      return true;
    // A record that lacks what would have been computed has it filled in.
    if (
      one.opening.record !== null &&
      isEmpty(one.opening.record.values[part] ?? null) &&
      values.some(isEmpty)
    )
      return true;
    const couldBeTyped = isOpen(one.parts[part]) || isOpen(other.parts[part]);
    // What scripts own is no input, but where they hand it over to people at times and have now.
    const isOwned = search.owned.has(column) && !search.covered.wasEverShut(column);
    return couldBeTyped && !isOwned && !contested.has(column);
  };
  const inputs = differences.filter(isOwn);
  if (inputs.length > 0) {
    const again = asIfTyped(search, one, other, inputs);
    const still = isSound(again) ? differencesOf(form, one, again) : differences;
    const names = new Set(still.map(({ part, aspect }) => `${part}.${aspect}`));
    for (const difference of inputs) tell(difference, 'may');
    differences = differences.filter(
      (difference) =>
        !inputs.includes(difference) && names.has(`${difference.part}.${difference.aspect}`),
    );
  }
  for (const difference of differences) {
    const growing = growingBy(difference);
    tell(difference, difference.aspect === 'exists' || growing.length > 0 ? 'may' : atMost);
    // A press of a button may well add something each time.
    if (growing.length > 0 && !steps.some((step) => 'click' in step))
      search.growing.set(keyOf({ kind, ...difference }), growing);
  }

  /**
   * What adds to itself grows by design or by mistake; nobody can tell which, but where it adds what was entered, as a
   * counter does not. A rule that does it is wrong.
   */
  function growingBy({ part, aspect }: Difference): Said[] {
    return search
      .said(part, aspect, one, other)
      .filter(
        ({ sort, reads, part: at }) => sort === 'handler' && reads.includes(`${at}.${aspect}`),
      );
  }

  function tell(difference: Difference, level: Level): void {
    const { part, aspect } = difference;
    search.report(
      kind,
      level,
      { part, aspect },
      search.said(part, aspect, one, other),
      `${way}: ${differenceInWords(difference)}`,
      one,
      other,
      { one: difference.one, other: difference.other },
    );
  }
}

/** The other session, with the values typed in which it differs and which a person could have typed. */
function asIfTyped(search: Exploration, one: Ran, other: Ran, inputs: readonly Difference[]): Ran {
  const typed = inputs.flatMap(({ part }): HeldStep[] => {
    const to = (one.parts[part]?.value ?? null) as Value;
    return isOpen(other.parts[part]) && !equal((other.parts[part].value ?? null) as Value, to)
      ? [{ set: part, to }]
      : [];
  });
  return search.quietly(other.opening, [...withoutWaits(other.steps), ...typed]);
}
