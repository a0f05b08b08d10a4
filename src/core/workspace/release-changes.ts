/** What a release that is about to be made changes, as the server says and the bench shows. */
import type { Difference } from './difference';

export interface ReleaseChanges {
  /** The number that the next release gets. */
  next: number;
  last: { number: number; madeBy: string | null; reason: string | null; failing: string[] } | null;
  differences: Difference[];
  /** Scripts whose text differs; null where there is none. */
  scripts: { name: string; before: string | null; after: string | null }[];
  /** Scenarios that fail now, in words. */
  failing: string[];
}
