import type { Value } from '../form/value';

/** A comparison as it came out. */
export interface Comparison {
  text: string;
  op: string;
  left: { text: string; value: Value };
  right: { text: string; value: Value };
  came: boolean;
}
