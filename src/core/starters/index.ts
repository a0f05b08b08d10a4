/** The starters, by the needs they serve. A new one is its entry here and a Starter of its own. */
import {
  composeText,
  computeFromFields,
  computeFromRows,
  dateFromNumber,
  dependentOptions,
  numberFromDates,
} from './computing';
import { clearAll, fetchFrom, handToParent, prefill, validateAcross, warnFuture } from './opening';
import {
  byChoice,
  byFlag,
  byRole,
  bySeveral,
  chained,
  perRow,
  replaceForm,
  switchTrack,
} from './showing';
import {
  filledIn,
  type StarterResult,
  type Picked,
  type Starter,
  type StarterSetting,
} from './starter';
import { withHeader } from '../script/header';

export const starters: readonly Starter[] = [
  byChoice,
  bySeveral,
  byRole,
  byFlag,
  chained,
  replaceForm,
  switchTrack,
  dependentOptions,
  computeFromFields,
  computeFromRows,
  dateFromNumber,
  numberFromDates,
  composeText,
  prefill,
  clearAll,
  validateAcross,
  warnFuture,
  perRow,
  fetchFrom,
  handToParent,
];

/** What a starter makes of what was picked, with the whole text of the behaviour; null when the form has nothing to pick. */
export function made(
  starter: Starter,
  setting: StarterSetting,
  picked: Picked,
): (StarterResult & { text: string; picked: Picked }) | null {
  const all = filledIn(starter, setting, picked);
  if (all === null) return null;
  const result = starter.make(setting, all);
  return {
    ...result,
    picked: all,
    text: `${withHeader({ text: '' }, { title: result.title, purpose: result.purpose, off: false, forms: null }).trimEnd()}\n\n${result.code}`,
  };
}
