/** The session's own time and chance: only steps move the clock, so a replay gives the same. */
export class Clock {
  #random: number;

  constructor(
    /** Milliseconds since 1970-01-01T00:00:00Z. */
    public now: number,
    /** An IANA name. */
    readonly zone: string,
    seed: number,
  ) {
    this.#random = seed >>> 0;
  }

  /** mulberry32 (Tommy Ettinger, public domain): small, seeded, and even enough for forms. */
  random(): number {
    this.#random = (this.#random + 0x6d2b79f5) >>> 0;
    let t = this.#random;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }
}
