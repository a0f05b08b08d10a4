/** A former run of a form's scenarios, as it is listed. */
export interface PastRun {
  passed: number;
  failed: number;
  /** The titles of those that failed. */
  failing: string[];
  by: string | null;
  at: string;
}
