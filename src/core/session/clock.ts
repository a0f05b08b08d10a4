/** The session's own time and chance: only steps move the clock, so a replay gives the same. */
export class Clock {
  /** Milliseconds since 1970-01-01T00:00:00Z. */
  now: number;
  /** An IANA name. */
  readonly zone: string;
  #random: number;

  constructor(now: number, zone: string, seed: number) {
    this.now = now;
    this.zone = zone;
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
