/**
 * Turns at something of which there are only so many, as threads or machines. Those who ask take turns, by whose work it
 * is, and nobody ever has all of them: whatever one does, the others are served.
 */

import { CutShort } from '../http/refusal';

export interface TurnsOptions {
  /** How many there are. */
  size: number;
  /** The most that one has at once; one less than there are, unless said. */
  mostOfOne?: number;
  /** Of one, and of all together, that may wait. */
  mostWaitingOfOne: number;
  mostWaiting: number;
  /** Real milliseconds that anybody waits. */
  patience: number;
}

/** Too many wait, or it took too long until it was one's turn. */
export class Busy extends CutShort {}

interface WaitingTurn {
  whose: string;
  /** Gives it its turn, or refuses it. */
  settle: (busy: Busy | null) => void;
}

export class Turns {
  readonly #taken = new Map<string, number>();
  /** By whose it is, in the order in which they take turns. */
  readonly #waiting = new Map<string, WaitingTurn[]>();

  constructor(private readonly options: TurnsOptions) {}

  /** Waits for a turn; gives what ends it, to be called once. Throws Busy. */
  async take(whose: string): Promise<() => void> {
    if (this.#isFreeFor(whose)) this.#count(whose, 1);
    else await this.#wait(whose);
    return () => {
      this.#count(whose, -1);
      for (const [next, [first]] of this.#waiting)
        if (this.#isFreeFor(next)) {
          this.#count(next, 1);
          return first!.settle(null);
        }
    };
  }

  #isFreeFor(whose: string): boolean {
    const { size, mostOfOne = Math.max(1, size - 1) } = this.options;
    const all = [...this.#taken.values()].reduce((sum, taken) => sum + taken, 0);
    return all < size && (this.#taken.get(whose) ?? 0) < mostOfOne;
  }

  #count(whose: string, by: 1 | -1): void {
    const taken = (this.#taken.get(whose) ?? 0) + by;
    if (taken > 0) this.#taken.set(whose, taken);
    else this.#taken.delete(whose);
  }

  #wait(whose: string): Promise<void> {
    const { mostWaitingOfOne, mostWaiting, patience } = this.options;
    const ofOne = this.#waiting.get(whose) ?? [];
    const all = [...this.#waiting.values()].reduce((sum, waiting) => sum + waiting.length, 0);
    if (ofOne.length >= mostWaitingOfOne || all >= mostWaiting) return Promise.reject(new Busy(5));
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => waiting.settle(new Busy()), patience);
      const waiting: WaitingTurn = {
        whose,
        settle: (busy) => {
          clearTimeout(timer);
          this.#drop(waiting);
          if (busy === null) resolve();
          else reject(busy);
        },
      };
      this.#waiting.set(whose, [...ofOne, waiting]);
    });
  }

  #drop(waiting: WaitingTurn): void {
    const left = (this.#waiting.get(waiting.whose) ?? []).filter((one) => one !== waiting);
    // Who was served goes behind the others.
    this.#waiting.delete(waiting.whose);
    if (left.length > 0) this.#waiting.set(waiting.whose, left);
  }
}
