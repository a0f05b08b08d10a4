/**
 * How to undo what was done in a step, newest last. One for a session; a run is a stretch of it from its mark.
 *
 * Left out on purpose, each with its reason where it is kept: numbers that are given once (runs, calls, stops), how often
 * something ran, failures, log lines, and the queues of settling, which `settling.ts` empties when a step is taken back.
 */
export class Journal {
  #undos: (() => void)[] = [];

  /** Notes how to undo what has just been done. */
  undoable(undo: () => void): void {
    this.#undos.push(undo);
  }

  /** A point to go back to with `rollBack`. */
  mark(): number {
    return this.#undos.length;
  }

  /** Undoes everything since the mark, the newest first. */
  rollBack(mark: number): void {
    const undos = this.#undos;
    while (undos.length > mark) undos.pop()!();
  }

  /** Nothing of it will be undone any more. */
  forget(): void {
    if (this.#undos.length > 0) this.#undos = [];
  }
}
