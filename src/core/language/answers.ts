/** What the language service answers. Offsets and positions count characters from 0, lines from 1. */
import type { Fix } from './mistakes/mistake';

export interface Diagnostic {
  /** Offsets into the source. */
  from: number;
  to: number;
  /** 1-based. */
  line: number;
  column: number;
  severity: 'error' | 'warning';
  says: string;
  /** `TS` and a number for what the compiler found; else the code of a mistake, which names its page in the handbook. */
  code: string;
  fixes: Fix[];
}

export interface Completion {
  label: string;
  kind: string;
  /** What people read where the label is a name or key; null where there is nothing to add. */
  detail: string | null;
}

export interface Explanation {
  from: number;
  to: number;
  signature: string;
  documentation: string;
  /** The part it names, as `field`, `rows.cell` or the name of another part. */
  part: string | null;
  /** Whether it names a part or something of the behaviour, and not what belongs to the language. */
  leads: boolean;
}

export interface Signature {
  /** The whole call, such as `keep(title: string, rule: () => void): void`. */
  text: string;
  /** Where in the text the parameter stands that is being written; null when none is. */
  active: { from: number; to: number } | null;
  documentation: string;
}

/** Where a name leads: to a part of the form, or to a place in a behaviour. */
export type Target =
  { is: 'part'; part: string } | { is: 'place'; file: string; from: number; to: number };

export interface Reference {
  file: string;
  from: number;
  to: number;
  line: number;
  text: string;
}
