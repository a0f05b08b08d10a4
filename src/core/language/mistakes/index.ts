/** The mistakes that are looked for while somebody writes. A new one is its file, its line here, its page in docs/mistakes. */
import { assignmentInCondition } from './assignment-in-condition';
import { beyondLimits } from './beyond-limits';
import { carriedState } from './carried-state';
import { clockInRule } from './clock-in-rule';
import { idleBehaviour } from './idle-behaviour';
import { invariantActs } from './invariant-acts';
import { labelForKey } from './label-for-key';
import { missingLoad } from './missing-load';
import { daysForMonths } from './days-for-months';
import { emptyForZero } from './empty-for-zero';
import { joinedNumbers } from './joined-numbers';
import { launchOfNoName } from './launch-of-no-name';
import { localDay } from './local-day';
import { moneyInDoubles } from './money-in-doubles';
import { monthsFromZero } from './months-from-zero';
import { untouchedForNo } from './untouched-for-no';
import type { Mistake } from './mistake';
import { neverHolds } from './never-holds';
import { neverReached } from './never-reached';
import { noWayBack } from './no-way-back';
import { optionGone } from './option-gone';
import { partForValue } from './part-for-value';
import { pastEvent } from './past-event';
import { pilesUp } from './piles-up';
import { readsUntied } from './reads-untied';
import { ruleReadsOwn } from './rule-reads-own';
import { staleAwait } from './stale-await';
import { textOfNoRow } from './text-of-no-row';
import { tiedInside } from './tied-inside';
import { twoSteer } from './two-steer';
import { wrongKind } from './wrong-kind';

export const mistakes: readonly Mistake[] = [
  labelForKey,
  optionGone,
  neverHolds,
  neverReached,
  beyondLimits,
  textOfNoRow,
  assignmentInCondition,
  partForValue,
  wrongKind,
  pilesUp,
  noWayBack,
  readsUntied,
  missingLoad,
  ruleReadsOwn,
  carriedState,
  tiedInside,
  staleAwait,
  pastEvent,
  twoSteer,
  launchOfNoName,
  joinedNumbers,
  moneyInDoubles,
  emptyForZero,
  untouchedForNo,
  localDay,
  monthsFromZero,
  daysForMonths,
  clockInRule,
  invariantActs,
  idleBehaviour,
];
