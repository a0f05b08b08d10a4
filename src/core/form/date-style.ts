/** How dates are written for people: one way for a workspace. Stored they are always `YYYY-MM-DD` (RFC 3339, full-date). */
import { isDate } from './formats';

export const DATE_STYLES = ['iso', 'dmy_points', 'dmy_slashes', 'mdy_slashes'] as const;
export type DateStyle = (typeof DATE_STYLES)[number];

/** The order of year, month and day. */
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

interface Spelled {
  order: DateOrder;
  separator: string;
  /** What it looks like, for labels and placeholders. */
  looks: string;
}

export const STYLES: Readonly<Record<DateStyle, Spelled>> = {
  iso: { order: 'ymd', separator: '-', looks: 'YYYY-MM-DD' },
  dmy_points: { order: 'dmy', separator: '.', looks: 'DD.MM.YYYY' },
  dmy_slashes: { order: 'dmy', separator: '/', looks: 'DD/MM/YYYY' },
  mdy_slashes: { order: 'mdy', separator: '/', looks: 'MM/DD/YYYY' },
};

/** A stored date as people of the workspace write it; what is no date stays as it is. */
export function showDate(date: string, style: DateStyle): string {
  if (!isDate(date)) return date;
  const [year, month, day] = date.split('-') as [string, string, string];
  const { order, separator } = STYLES[style];
  const parts = { ymd: [year, month, day], dmy: [day, month, year], mdy: [month, day, year] };
  return parts[order].join(separator);
}

const TYPED = /^(\d{1,4})\s*[-./ ]\s*(\d{1,2})\s*[-./ ]\s*(\d{1,4})\.?$/;

/**
 * Reads a date with any common separator. A first number of four digits is the year, whatever the order; where the order
 * begins with the year and the first number is none, the day stands first. Null for what is no day of the calendar.
 */
export function readDate(text: string, order: DateOrder): string | null {
  const match = TYPED.exec(text.trim()) ?? /^(\d{4})(\d{2})(\d{2})$/.exec(text.trim());
  if (match === null) return null;
  const [first, second, third] = match.slice(1) as [string, string, string];
  const really = first.length >= 3 ? 'ymd' : order === 'ymd' ? 'dmy' : order;
  const [year, month, day] =
    really === 'ymd'
      ? [first, second, third]
      : really === 'dmy'
        ? [third, second, first]
        : [third, first, second];
  const spelled = `${fullYear(year)}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isDate(spelled) ? spelled : null;
}

/** POSIX (strptime, %y): two digits from 69 on are of the last century. */
function fullYear(year: string): string {
  if (year.length > 2) return year.padStart(4, '0');
  return Number(year) >= 69 ? `19${year.padStart(2, '0')}` : `20${year.padStart(2, '0')}`;
}

/** Reads a time of day such as `9:05`, `09.05`, `0905` or `9`, as `HH:MM`; null for what is none. */
export function readTime(text: string): string | null {
  const match =
    /^(\d{1,2})\s*[:.h ]\s*(\d{2})(?::\d{2})?$/.exec(text.trim()) ??
    /^(\d{1,2})(\d{2})?$/.exec(text.trim());
  if (match === null) return null;
  const [hour, minute] = [Number(match[1]), Number(match[2] ?? 0)];
  if (hour > 23 || minute > 59) return null;
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

/** Reads a date and a time after it, as `YYYY-MM-DDTHH:MM`. */
export function readDateAndTime(text: string, order: DateOrder): string | null {
  const match = /^(.*\S)(?:\s+|T)(\S+)$/.exec(text.trim());
  if (match === null) return null;
  const [day, time] = [readDate(match[1]!, order), readTime(match[2]!)];
  return day === null || time === null ? null : `${day}T${time}`;
}
