/**
 * The session's own time and chance: what scripts get as `Date`, `Math` and `Temporal`. They read a
 * clock that only steps move, so a replay gives the same.
 */
import type { Temporal as TemporalNamespace } from 'temporal-polyfill';
import { ScriptError, words } from '../wire/failures';
import { Cell, Double, Op } from '../wire/layout';
import type { Wire } from './wire';
import { makeDate } from './zoned-date';

export interface GuestClock {
  Date: DateConstructor;
  Math: Math;
  Temporal: typeof TemporalNamespace | undefined;
}

/** `zone` is the IANA name of the session's time zone. */
export function makeClock(
  { cells, floats, call, act }: Wire,
  temporal: typeof TemporalNamespace | null,
  zone: () => string,
): GuestClock {
  const read = (what: string): number => {
    const now = floats[Double.Clock]!;
    if (Number.isNaN(now)) throw new ScriptError('wrong_use', words.topLevel(`${what} was asked`));
    return now;
  };

  const math = Object.create(null) as Record<string, unknown>;
  for (const name of Object.getOwnPropertyNames(Math)) math[name] = Math[name as keyof Math];
  math.random = () => {
    read('Math.random()');
    cells[Cell.Op] = Op.Random;
    call();
    return floats[Double.Answer];
  };

  return {
    Date: makeDate({
      now: () => read('the time'),
      wallClock: (at) => {
        read('the time zone');
        return act('zone', { zone: zone(), at });
      },
    }),
    Math: Object.freeze(math) as unknown as Math,
    Temporal: temporal === null ? undefined : temporalOn(temporal),
  };

  function temporalOn(given: typeof TemporalNamespace): typeof TemporalNamespace {
    const instant = () => given.Instant.fromEpochMilliseconds(read('the time'));
    const zoned = (name = zone()) => instant().toZonedDateTimeISO(name);
    const Now = Object.freeze({
      instant,
      timeZoneId: () => (read('the time zone'), zone()),
      zonedDateTimeISO: zoned,
      plainDateISO: (name?: string) => zoned(name).toPlainDate(),
      plainTimeISO: (name?: string) => zoned(name).toPlainTime(),
      plainDateTimeISO: (name?: string) => zoned(name).toPlainDateTime(),
    });
    // The namespace's members are not enumerable.
    const own: Record<string, unknown> = {};
    for (const name of Object.getOwnPropertyNames(given))
      own[name] = given[name as keyof typeof given];
    return Object.freeze({ ...own, Now }) as unknown as typeof TemporalNamespace;
  }
}
