/** Why a person cannot do a step: the words, and the questions that every step on a part asks first. */
import { accept } from '../form/kinds';
import { equal, inWords, type Value } from '../form/value';
import type { Part } from './parts';
import type { Situation } from './situation';
import type { State } from './state';
import { partAt } from './tree';

export const VIEWING = 'this record is only being viewed';

/** The part of an address that a person can get at; or why not. */
export function reachable(
  state: State,
  situation: Situation,
  name: string,
  sort: 'field' | 'button' | 'row',
): Part | string {
  const part = partAt(state.parts, name);
  if (part === null || part.sort !== sort) return `there is no ${sort} "${name}"`;
  if (!part.onScreen) return `${part.label} is hidden`;
  if (!part.editable) return situation.viewing ? VIEWING : `${part.label} is locked`;
  return part;
}

/** The value a field takes from a person; or why it takes none. What stands there already may be entered again. */
export function offer(state: State, part: Part, offered: Value): { value: Value } | string {
  if (part.rows !== null)
    return `the rows of ${part.label} are added, removed and filled in one by one`;
  const current = part.value;
  const accepted = accept(offered, part.field, state.offers.surroundings(part));
  if (!accepted.ok)
    return equal(offered, current)
      ? { value: current }
      : `${part.label} (${part.field.kind}) takes ${accepted.takes}, not ${inWords(offered)}`;
  if (!state.offers.isOffered(part, accepted.value) && !equal(accepted.value, current)) {
    return `${state.offers
      .notOffered(part, accepted.value)
      .map((key) => JSON.stringify(key))
      .join(', ')} is not among the options of ${part.label}`;
  }
  return { value: accepted.value };
}
