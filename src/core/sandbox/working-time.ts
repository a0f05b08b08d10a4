/**
 * How long a worker could work. A busy machine lets a thread wait for minutes, so nobody is blamed for what a clock says:
 * where the host knows the processor time that the worker has used, that counts; where it does not, as in a
 * browser, only time in which the one who watches was on time himself.
 */

/** Milliseconds between two looks. */
export const TICK = 50;

/** The most that counts between two looks of one who has nothing but a clock: whoever looks later was kept waiting too. */
const MOST_BETWEEN = 2 * TICK;

export class WorkingTime {
  #counted = 0;
  #lookedAt: number;
  #usedBefore: number | null;

  /** `used` gives the worker's processor time in milliseconds so far, null where the host cannot tell. */
  constructor(
    private readonly used: () => number | null,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.#lookedAt = now();
    this.#usedBefore = used();
  }

  /** Milliseconds that the worker has worked since this was made; to be asked for every `TICK`. */
  look(): number {
    const now = this.now();
    const passed = now - this.#lookedAt;
    this.#lookedAt = now;
    const used = this.used();
    this.#counted +=
      used === null
        ? Math.min(passed, MOST_BETWEEN)
        : // A worker that only now says what it has used, or one that took its place, begins to count here.
          Math.max(0, used - (this.#usedBefore ?? used));
    this.#usedBefore = used;
    return this.#counted;
  }
}
