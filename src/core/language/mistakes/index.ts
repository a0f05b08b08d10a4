/** The mistakes that are looked for while somebody writes. A new one is its file, its line here, its page in docs/mistakes. */
import { assignmentInCondition } from './assignment-in-condition';
import { carriedState } from './carried-state';
import { clockInRule } from './clock-in-rule';
import { idleBehaviour } from './idle-behaviour';
import { labelForKey } from './label-for-key';
import { missingLoad } from './missing-load';
import type { Mistake } from './mistake';
import { neverHolds } from './never-holds';
import { noWayBack } from './no-way-back';
import { optionGone } from './option-gone';
import { partForValue } from './part-for-value';
import { pastEvent } from './past-event';
import { pilesUp } from './piles-up';
import { readsUntied } from './reads-untied';
import { ruleReadsOwn } from './rule-reads-own';
import { staleAwait } from './stale-await';
import { tiedInside } from './tied-inside';
import { twoSteer } from './two-steer';
import { wrongKind } from './wrong-kind';

export const mistakes: readonly Mistake[] = [
  labelForKey,
  optionGone,
  neverHolds,
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
  clockInRule,
  idleBehaviour,
];
