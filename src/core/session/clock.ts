/** The session's own time and chance: only steps move the clock, so a replay gives the same. */
import { nextState, numberAt } from '../random';
import type { Restore } from './checkpoint';

export class Clock {
  #chance: number;

  constructor(
    /** Milliseconds since 1970-01-01T00:00:00Z. */
    public now: number,
    /** An IANA name. */
    readonly zone: string,
    seed: number,
  ) {
    this.#chance = seed >>> 0;
  }

  random(): number {
    this.#chance = nextState(this.#chance);
    return numberAt(this.#chance);
  }

  checkpoint(): Restore {
    const { now } = this;
    const chance = this.#chance;
    return () => {
      this.now = now;
      this.#chance = chance;
    };
  }
}
