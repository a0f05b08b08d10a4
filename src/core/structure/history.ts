/** What can be undone and done again. */
export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
}

export function begin<T>(present: T): History<T> {
  return { past: [], present, future: [] };
}

/** A new state; what had been undone can no longer be done again. */
export function advance<T>(history: History<T>, present: T): History<T> {
  return { past: [...history.past, history.present], present, future: [] };
}

/** The state before, or the same history at its beginning. */
export function undo<T>(history: History<T>): History<T> {
  const present = history.past.at(-1);
  if (present === undefined) return history;
  return { past: history.past.slice(0, -1), present, future: [history.present, ...history.future] };
}

/** The state that was undone last, or the same history when there is none. */
export function redo<T>(history: History<T>): History<T> {
  const [present, ...future] = history.future;
  if (present === undefined) return history;
  return { past: [...history.past, history.present], present, future };
}
