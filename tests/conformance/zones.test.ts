/**
 * Time zones against the IANA time zone database as two independent readers have it: the engine's Intl (ICU), which the
 * inputs and defaults use, and ECMAScript's Temporal (temporal-polyfill), which scripts use; scripts' `Date` against V8's. Transitions in the second
 * table are those of the database, from memory.
 */
import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { beforeAll, expect, test } from 'vitest';
import { fromWallClock, isZone, toWallClock, wallClock } from '../../src/core/form/zone';
import { makeDate } from '../../src/core/guest/zoned-date';
import { formWith, text } from '../support/forms';
import { bootMachine, direct, inMachine } from '../support/hosts';

beforeAll(bootMachine);

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

/** What a `Date` gives for an instant, and for what is done with it; the same code runs here and in V8 in that zone. */
const asked = (Made: DateConstructor, at: number, parts: number[]): unknown[] => {
  const date = new Made(at);
  const done = (change: (one: Date) => unknown) => {
    const one = new Made(at);
    change(one);
    return one.getTime();
  };
  const [year, month, day, hour, minute, second] = parts as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const two = (n: number) => String(n).padStart(2, '0');
  const local = `${year}-${two(month + 1)}-${two(day)}T${two(hour)}:${two(minute)}`;
  return [
    date.getFullYear(),
    date.getMonth(),
    date.getDate(),
    date.getDay(),
    date.getHours(),
    date.getMinutes(),
    date.getSeconds(),
    date.getMilliseconds(),
    date.getTimezoneOffset(),
    date.toString().replace(/ \([^)]*\)$/, ''),
    date.toDateString(),
    new Made(year, month, day, hour, minute, second, 7).getTime(),
    new Made(year, month).getTime(),
    Made.parse(local),
    new Made(`${local}:${two(second)}.250`).getTime(),
    new Made(local.slice(0, 10)).getTime(),
    new Made(`${local}:00+03:00`).getTime(),
    done((one) => one.setHours(hour, minute)),
    done((one) => one.setDate(day + 40)),
    done((one) => one.setMonth(month - 14)),
    done((one) => one.setFullYear(year, month, day)),
    done((one) => one.setMinutes(minute + 300)),
    done((one) => one.setHours(0, 0, 0, 0)),
  ];
};

test.each(ZONES)('a session’s Date in %s is V8’s where that is the zone of the machine', (zone) => {
  const ours = makeDate({ now: () => 0, wallClock: (at) => wallClock(zone, at)! });
  const inDay = fc.tuple(
    fc.integer({ min: 1971, max: 2090 }),
    fc.integer({ min: 0, max: 11 }),
    fc.integer({ min: 1, max: 28 }),
    fc.integer({ min: 0, max: 23 }),
    fc.integer({ min: 0, max: 59 }),
    fc.integer({ min: 0, max: 59 }),
  );
  const samples = fc.sample(
    fc.tuple(fc.integer({ min: Date.UTC(1971, 0), max: Date.UTC(2090, 0) }), inDay),
    { seed: 20310502, numRuns: 300 },
  );
  // Around each change of the clocks in some years too, where times are skipped and repeated.
  for (const year of [1999, 2031]) {
    let at = Temporal.ZonedDateTime.from({ timeZone: zone, year, month: 1, day: 1 });
    for (let i = 0; i < 2; i++) {
      const next = at.getTimeZoneTransition('next');
      if (next === null) break;
      at = next;
      for (let minutes = -180; minutes <= 180; minutes += 15) {
        const near = at.epochMilliseconds + minutes * 60_000;
        const [y, m, d, h, min] = wallClock(
          'UTC',
          near + ours.prototype.getTimezoneOffset.call(new ours(near)) * -60_000,
        )!;
        samples.push([near, [y!, m! - 1, d!, h!, min!, 0]]);
      }
    }
  }
  const { stdout, status } = spawnSync(
    process.execPath,
    [
      '-e',
      `const asked = ${asked.toString()}; console.log(JSON.stringify(${JSON.stringify(samples)}.map(([at, parts]) => asked(Date, at, parts))));`,
    ],
    { env: { ...process.env, TZ: zone }, encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 },
  );
  expect(status).toBe(0);
  const theirs = JSON.parse(stdout) as unknown[][];
  samples.forEach(([at, parts], i) =>
    expect(JSON.parse(JSON.stringify(asked(ours, at, parts))), `${at} ${parts.join(' ')}`).toEqual(
      theirs[i],
    ),
  );
});

test('what is no time is none, and texts of other shapes are read as local where they name no zone', () => {
  const zone = 'Europe/Vienna';
  const Ours = makeDate({
    now: () => Date.UTC(2031, 4, 2, 9),
    wallClock: (at) => wallClock(zone, at)!,
  });
  expect(new Ours('nonsense').getHours()).toBeNaN();
  expect(String(new Ours(NaN))).toBe('Invalid Date');
  expect(new Ours(NaN).getTimezoneOffset()).toBeNaN();
  expect(new Ours(8.64e15 + 1).getTime()).toBeNaN();
  expect(new Ours('May 2, 2031 11:00').toISOString()).toBe('2031-05-02T09:00:00.000Z');
  expect(new Ours('Fri, 02 May 2031 09:00:00 GMT').toISOString()).toBe('2031-05-02T09:00:00.000Z');
  expect(new Ours().toString()).toBe('Fri May 02 2031 11:00:00 GMT+0200');
  expect(new Ours(new Ours(5)).getTime()).toBe(5);
  expect(new Ours().toLocaleTimeString()).toBe('11:00:00');
  // Through a session, in whichever host.
  const script = [
    'on.load(() => {',
    '  const now = new Date();',
    '  fields.note.value = `${now.getHours()} ${now.getTimezoneOffset()} ${new Date(2031, 4, 2, 11).toISOString()} ${new Date("2031-05-02T11:00").getTime() === now.getTime()}`;',
    '});',
  ].join('\n');
  const setting = {
    form: formWith([text('note')]),
    scripts: { '10-x': script },
    opening: { zone },
  };
  for (const host of [direct, inMachine])
    expect(host(setting).value('note')).toBe('11 -120 2031-05-02T09:00:00.000Z true');
});
