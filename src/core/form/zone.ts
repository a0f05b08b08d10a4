/** Time zones by their IANA names, as the engine's own `Intl` knows them (ECMA-402). */

const formats = new Map<string, Intl.DateTimeFormat | null>();

function formatOf(zone: string): Intl.DateTimeFormat | null {
  let format = formats.get(zone);
  if (format === undefined) {
    try {
      format = new Intl.DateTimeFormat('en-u-ca-iso8601', {
        timeZone: zone,
        hourCycle: 'h23',
        year: 'numeric',
        month: 'numeric',
        day: 'numeric',
        hour: 'numeric',
        minute: 'numeric',
        second: 'numeric',
        era: 'short',
      });
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
  return [
    found.era?.startsWith('B') === true ? 1 - year : year,
    Number(found.month),
    Number(found.day),
    Number(found.hour),
    Number(found.minute),
    Number(found.second),
  ];
}

/** The wall clock of a zone at an instant spelled as `2031-05-02T09:00:00Z`, as `2031-05-02T09:00`. */
export function toWallClock(zone: string, moment: string): string {
  const [year, month, day, hour, minute] =
    wallClock(zone, Date.parse(moment)) ?? wallClock('UTC', Date.parse(moment))!;
  const two = (n: number | undefined) => String(n).padStart(2, '0');
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(day)}T${two(hour)}:${two(minute)}`;
}

/**
 * The instant at which the clocks of a zone show `2031-05-02T09:00`, spelled as `2031-05-02T08:00:00Z`. Of two such
 * instants it is the earlier; a time that clocks pass over is as much later as they are put forward ("compatible",
 * as of ECMAScript's Temporal, disambiguation).
 */
export function fromWallClock(zone: string, local: string): string {
  const wall = Date.parse(`${local.slice(0, 16)}:00Z`);
  const offset = (at: number) =>
    Date.parse(`${toWallClock(zone, new Date(at).toISOString())}:00Z`) -
    Math.floor(at / 60_000) * 60_000;
  const day = 86_400_000;
  const [before, after] = [offset(wall - day), offset(wall + day)];
  const fits = [wall - before, wall - after]
    .filter((at) => at + offset(at) === wall)
    .sort((a, b) => a - b);
  const at = fits[0] ?? wall - before;
  return `${new Date(at).toISOString().slice(0, 19)}Z`;
}
