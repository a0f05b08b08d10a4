import type { Value } from '../form/value';

/** A comparison as it came out. */
export interface Comparison {
  text: string;
  op: string;
  left: { text: string; value: Value };
  right: { text: string; value: Value };
  came: boolean;
}

/** Whether a condition that came to this holds. */
export function holds(came: Value): boolean {
  return came !== null && came !== false && came !== 0 && came !== '';
}
