/**
 * Date arithmetic as scripts have it, in both hosts, against the examples of the Temporal proposal's documentation
 * (https://tc39.es/proposal-temporal/docs/plaindate.html, …/duration.html, …/instant.html; quoted from memory).
 */
import { beforeAll, expect, test } from 'vitest';
import { formWith, text } from '../support/forms';
import { bootMachine, both } from '../support/hosts';

beforeAll(bootMachine);

test.each([
  ['Temporal.PlainDate.from("2006-08-24").add({ years: 20, months: 4 })', '2026-12-24'],
  ['Temporal.PlainDate.from("2006-08-24").subtract({ years: 20, months: 4 })', '1986-04-24'],
  ['Temporal.PlainDate.from("2006-08-24").until("2019-01-31")', 'P4543D'],
  [
    'Temporal.PlainDate.from("2006-08-24").until("2019-01-31", { largestUnit: "years" })',
    'P12Y5M7D',
  ],
  ['Temporal.PlainDate.from("2019-01-31").since("2006-08-24")', 'P4543D'],
  ['Temporal.PlainDate.from("2019-01-31").add({ months: 1 })', '2019-02-28'],
  ['Temporal.PlainDate.from("2006-08-24").with({ day: 1 })', '2006-08-01'],
  ['Temporal.PlainDate.from("2006-08-24").dayOfWeek', '4'],
  ['Temporal.PlainDate.from("2006-08-24").inLeapYear', 'false'],
  ['Temporal.PlainDate.compare("2006-08-24", "2015-07-14")', '-1'],
  [
    'Temporal.PlainDate.from({ year: 2001, month: 2, day: 29 }, { overflow: "constrain" })',
    '2001-02-28',
  ],
  ['Temporal.Duration.from("PT130M").round({ largestUnit: "hours" })', 'PT2H10M'],
  ['Temporal.Duration.from({ hours: 130, minutes: 20 }).total({ unit: "seconds" })', '469200'],
  ['Temporal.PlainTime.from("19:39:09").add({ minutes: 5, nanoseconds: 800 })', '19:44:09.0000008'],
  [
    'Temporal.Instant.from("2020-01-09T00:00Z").until("2020-01-09T04:00Z", { largestUnit: "hours" })',
    'PT4H',
  ],
])('%s is %s', (expression, result) => {
  const use = both({
    form: formWith([text('out')]),
    scripts: { a: `on.load(() => { fields.out.value = String(${expression}); });` },
  });
  expect([use.opened.errors, use.value('out')]).toEqual([[], result]);
});
