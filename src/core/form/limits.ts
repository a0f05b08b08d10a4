/** Limits that hold whatever a form says, and what holds where a service says nothing. Without the definition's schemas, so that they cost nobody more. */

/** Rows that one field may have at most. */
export const MOST_ROWS = 10_000;

/** Bytes that one file may have at most. */
export const MOST_BYTES = 10 * 1024 * 1024;

/** Milliseconds after which a service answers that says nothing else. */
export const DEFAULT_DELAY = 300;
