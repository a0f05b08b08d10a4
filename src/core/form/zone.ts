/** Time zones by their IANA names, as the engine's own `Intl` knows them (ECMA-402). */

const formats = new Map<string, Intl.DateTimeFormat | null>();

function formatOf(zone: string): Intl.DateTimeFormat | null {
  let format = formats.get(zone);
  if (format === undefined) {
    try {
      format = new Intl.DateTimeFormat('en-u-ca-iso8601', { timeZone: zone, hourCycle: 'h23', year: 'numeric', month: 'numeric', day: 'numeric', hour: 'numeric', minute: 'numeric', second: 'numeric', era: 'short' });
    } catch {
      format = null;
    }
    // Names come from people and scripts, so what is kept has a bound.
    if (formats.size > 500) formats.clear();
    formats.set(zone, format);
  }
  return format;
}

/** Whether this is the name of a time zone, such as `Europe/Lisbon`. */
export function isZone(name: string): boolean {
  return name.length <= 60 && /^[A-Za-z][A-Za-z0-9_+/-]*$/.test(name) && formatOf(name) !== null;
}

/**
 * The wall clock of a zone at an instant, in milliseconds since 1970-01-01T00:00:00Z: year (0 and below before the
 * common era), month, day, hour, minute, second. Null for a zone that nobody knows.
 */
export function wallClock(zone: string, at: number): number[] | null {
  const format = isZone(zone) ? formatOf(zone) : null;
  if (format === null || !Number.isFinite(at) || Math.abs(at) > 8.64e15) return null;
  const found: Record<string, string> = {};
  for (const { type, value } of format.formatToParts(at)) found[type] = value;
  const year = Number(found.year);
  return [found.era?.startsWith('B') === true ? 1 - year : year, Number(found.month), Number(found.day), Number(found.hour), Number(found.minute), Number(found.second)];
}
