/** One version of a form, as comparisons play it. */
import type { Ground, Stage } from '../explore/ground';
import type { Mentions } from '../explore/mentions';
import type { Source } from '../script/header';

export interface Version {
  ground: Ground;
  mentions: Mentions;
  /** Its scripts are traced. The two versions of a comparison have a machine each. */
  stage: Stage;
  /** The behaviours that run and the shared modules that they use. */
  sources: readonly Source[];
}

/** A line of one version, by the script that it stands in. */
export interface ChangedLine {
  script: string;
  /** 1-based. */
  line: number;
}

/** What changed between two versions, as a comparison is told it (`change.ts`). */
export interface Change {
  /** Names and texts that the changed handlers and rules mention: they are tried first. */
  words: readonly string[];
  /** Changed lines that run with a handler, a rule or a function, by version. */
  running: { before: readonly ChangedLine[]; after: readonly ChangedLine[] };
}

/** Where nobody could tell what changed: everything is tried alike. */
export const NO_CHANGE: Change = { words: [], running: { before: [], after: [] } };
