/**
 * Time zones against the IANA time zone database as two independent readers have it: the engine's Intl (ICU), which the
 * inputs and defaults use, and ECMAScript's Temporal (temporal-polyfill), which scripts use. Transitions in the second
 * table are those of the database, from memory.
 */
import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { expect, test } from 'vitest';
import { fromWallClock, isZone, toWallClock, wallClock } from '../../src/core/form/zone';

const ZONES = [
  'UTC',
  'Europe/Lisbon',
  'Europe/Vienna',
  'America/New_York',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Asia/Tokyo',
  'Australia/Lord_Howe',
  'Pacific/Auckland',
  'Pacific/Apia',
  'Africa/Cairo',
  'America/Sao_Paulo',
];
const minute = (ms: number) => Math.floor(ms / 60_000) * 60_000;

test('the wall clock at an instant is Temporal’s', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...ZONES),
      fc.integer({ min: Date.UTC(1975, 0), max: Date.UTC(2099, 0) }),
      (zone, at) => {
        const {
          year,
          month,
          day,
          hour,
          minute: min,
          second,
        } = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone);
        expect(wallClock(zone, at)).toEqual([year, month, day, hour, min, second]);
      },
    ),
    { numRuns: 3000, seed: 20310502 },
  );
});

test('the instant of a wall clock is Temporal’s, where clocks are put forward and back too', () => {
  const near = fc.constantFrom(...ZONES).chain((zone) => {
    // Moments around every change of the zone's offset in some year, and others.
    const from = Temporal.ZonedDateTime.from({ timeZone: zone, year: 2031, month: 1, day: 1 });
    const change = from.getTimeZoneTransition('next')?.epochMilliseconds ?? from.epochMilliseconds;
    return fc.tuple(
      fc.constant(zone),
      fc.oneof(
        fc.integer({ min: change - 7_200_000 * 3, max: change + 7_200_000 * 3 }),
        fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2060, 0) }),
      ),
    );
  });
  fc.assert(
    fc.property(near, ([zone, ms]) => {
      const local = new Date(minute(ms)).toISOString().slice(0, 16);
      const expected = Temporal.PlainDateTime.from(local)
        .toZonedDateTime(zone)
        .toInstant()
        .toString();
      expect([zone, local, fromWallClock(zone, local)]).toEqual([zone, local, expected]);
    }),
    { numRuns: 4000, seed: 20310502 },
  );
});

test.each([
  ['Europe/Vienna', '2031-03-30T02:30', '2031-03-30T01:30:00Z', 'passed over: an hour later'],
  ['Europe/Vienna', '2031-10-26T02:30', '2031-10-26T00:30:00Z', 'twice: the earlier'],
  ['Asia/Kathmandu', '2031-01-01T00:00', '2030-12-31T18:15:00Z', 'three quarters of an hour'],
  ['Pacific/Apia', '2011-12-30T12:00', '2011-12-30T22:00:00Z', 'a day that Samoa left out'],
])('%s %s is %s (%s)', (zone, local, instant) => {
  expect(fromWallClock(zone, local)).toBe(instant);
});

test('what is entered is shown again', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...ZONES),
      fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2060, 0) }),
      (zone, ms) => {
        const shown = toWallClock(zone, new Date(minute(ms)).toISOString());
        expect(toWallClock(zone, fromWallClock(zone, shown))).toBe(shown);
      },
    ),
    { numRuns: 1000, seed: 1 },
  );
});

test.each([
  '',
  'Harbour/Nowhere',
  '../etc/passwd',
  'UTC+99',
  'x'.repeat(200),
  'Europe/Lisbon\u0000',
  'constructor',
])('%j is no zone', (name) => {
  expect([isZone(name), wallClock(name, 0)]).toEqual([false, null]);
});
