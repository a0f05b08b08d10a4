/** The number of each aspect on the wire. */
import type { SaidName } from './aspects';
import { Slot } from './layout';

export const SLOT_OF: Readonly<Record<SaidName, Slot>> = {
  shown: Slot.Shown,
  value: Slot.Value,
  required: Slot.Required,
  locked: Slot.Locked,
  options: Slot.Options,
  hint: Slot.Hint,
  warning: Slot.Warning,
  problem: Slot.Problem,
  label: Slot.Label,
  stage: Slot.Stage,
  message: Slot.Message,
  replaced: Slot.Replaced,
};
