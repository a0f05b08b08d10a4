/** Text formats of published standards: valid e-mail address and date (WHATWG), date and time (RFC 3339). */

/**
 * "A valid e-mail address" as the HTML standard writes it (section "E-mail state", type=email), a wilful violation of
 * RFC 5322 that fits what people type.
 */
const EMAIL =
  /^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*$/;

export function isEmail(text: string): boolean {
  return EMAIL.test(text);
}

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/;

/** A real day of the proleptic Gregorian calendar spelled `YYYY-MM-DD` (RFC 3339 full-date; year 0000 is none in HTML). */
export function isDate(text: string): boolean {
  const match = DATE.exec(text);
  if (match === null) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  return year >= 1 && month >= 1 && month <= 12 && day >= 1 && day <= daysIn(year, month);
}

/** A time of day spelled `HH:MM`, 00:00 to 23:59. */
export function isTime(text: string): boolean {
  return /^(?:[01]\d|2[0-3]):[0-5]\d$/.test(text);
}

const DATE_TIME =
  /^(\d{4}-\d{2}-\d{2})T(?:[01]\d|2[0-3]):[0-5]\d:[0-5]\d(?:\.\d{1,9})?(?:Z|[+-](?:[01]\d|2[0-3]):[0-5]\d)$/;

/** A moment as of RFC 3339 (section 5.6), without leap seconds, which no clock here has. */
export function isDateTime(text: string): boolean {
  const match = DATE_TIME.exec(text);
  return match !== null && isDate(match[1]!);
}

function daysIn(year: number, month: number): number {
  if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31;
}
