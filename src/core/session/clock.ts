/**
 * The session's own time and chance (semantics 24): what scripts get as `Date`, `Math` and `Temporal`. They read a
 * clock that only steps move, so a replay gives the same.
 */
import type { Temporal as TemporalNamespace } from 'temporal-polyfill';
import { ScriptFault, words } from './errors';

export class Clock {
  /** Milliseconds since 1970-01-01T00:00:00Z, or null before a form is open. */
  now: number | null = null;
  #random = 0;

  seed(seed: number): void {
    this.#random = seed >>> 0;
  }

  read(what: string): number {
    if (this.now === null) throw new ScriptFault('wrong_use', words.topLevel(`${what} was asked`));
    return this.now;
  }

  /** mulberry32 (Tommy Ettinger, public domain): small, seeded, and even enough for forms. */
  random(): number {
    this.read('Math.random()');
    this.#random = (this.#random + 0x6d2b79f5) >>> 0;
    let t = this.#random;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }
}

export function dateOn(clock: Clock): DateConstructor {
  class SessionDate extends Date {
    constructor(...parts: [] | [number | string | Date]) {
      if (parts.length === 0) super(clock.read('the time'));
      else super(...parts);
    }
    static override now(): number {
      return clock.read('the time');
    }
  }
  return Object.freeze(SessionDate) as unknown as DateConstructor;
}

export function mathOn(clock: Clock): Math {
  const math = Object.create(null) as Record<string, unknown>;
  for (const name of Object.getOwnPropertyNames(Math)) math[name] = Math[name as keyof Math];
  math.random = () => clock.random();
  return Object.freeze(math) as unknown as Math;
}

export function temporalOn(clock: Clock, temporal: typeof TemporalNamespace): typeof TemporalNamespace {
  const instant = () => temporal.Instant.fromEpochMilliseconds(clock.read('the time'));
  const zoned = (zone = 'UTC') => instant().toZonedDateTimeISO(zone);
  const Now = Object.freeze({
    instant,
    timeZoneId: () => 'UTC',
    zonedDateTimeISO: zoned,
    plainDateISO: (zone?: string) => zoned(zone).toPlainDate(),
    plainTimeISO: (zone?: string) => zoned(zone).toPlainTime(),
    plainDateTimeISO: (zone?: string) => zoned(zone).toPlainDateTime(),
  });
  // The namespace's members are not enumerable.
  const own: Record<string, unknown> = {};
  for (const name of Object.getOwnPropertyNames(temporal)) own[name] = temporal[name as keyof typeof temporal];
  return Object.freeze({ ...own, Now }) as unknown as typeof TemporalNamespace;
}
