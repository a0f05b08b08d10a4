/**
 * `Date` as scripts have it: now is the session's clock, and whatever is local is so in the session's time zone, be it in
 * the browser, on the server or on the command line. The language leaves texts other than ISO 8601, and all that ends in
 * `Locale`, to the engine; here they are the same everywhere.
 */

/** Milliseconds since 1970-01-01T00:00:00Z. */
type Instant = number;

export interface ZonedClock {
  /** The session's clock. Throws where none runs. */
  now(): Instant;
  /** What clocks of the session's zone show: year, month from 1, day, hour, minute, second. Throws where none runs. */
  wallClock(at: Instant): readonly number[];
}

const DAY = 86_400_000;
const DAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');
/** A date with a time and no offset (ECMA-262, Date Time String Format), which is local. */
const LOCAL = /^(?:\d{4}|[+-]\d{6})(?:-\d\d(?:-\d\d)?)?T\d\d:\d\d(?::\d\d(?:\.\d+)?)?$/;
/** Any other text of ISO 8601: a date alone, which is UTC, or one with its offset. */
const ISO = /^(?:\d{4}|[+-]\d{6})(?:-\d\d(?:-\d\d)?)?(?:T\d\d:\d\d.*)?$/;
const HAS_ZONE = /(?:Z|UT|UTC|GMT|[+-]\d\d:?\d\d)(?:\s*\([^)]*\))?$/i;
const FIELDS = [
  'FullYear',
  'Month',
  'Date',
  'Hours',
  'Minutes',
  'Seconds',
  'Milliseconds',
] as const;

const two = (n: number): string => String(n).padStart(2, '0');

export function makeDate({ now, wallClock }: ZonedClock): DateConstructor {
  const Base = Date;

  /** How far clocks of the zone are ahead of UTC at an instant, in milliseconds. */
  function offsetAt(at: Instant): number {
    const [year, month, day, hour, minute, second] = wallClock(at) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const wall = new Base(0);
    wall.setUTCFullYear(year, month - 1, day);
    wall.setUTCHours(hour, minute, second);
    return wall.getTime() - Math.floor(at / 1000) * 1000;
  }

  const isInstant = (at: Instant): boolean => Math.abs(at) <= 8.64e15;

  /** What clocks show at an instant, told as if they showed UTC. */
  function shownAt(at: Instant): Date {
    return new Base(isInstant(at) ? at + offsetAt(at) : NaN);
  }

  /**
   * The instant at which clocks show this. Of two such instants, and of a time that clocks pass over, it is that of the
   * offset before they were changed (ECMA-262, UTC(t)).
   */
  function whenShown(shown: number): Instant {
    if (!isInstant(shown)) return NaN;
    const before = shown - offsetAt(within(shown - DAY));
    const after = shown - offsetAt(within(shown + DAY));
    const fits = (at: Instant) => isInstant(at) && at + offsetAt(at) === shown;
    return fits(after) && !fits(before) ? after : before;
  }

  const within = (at: Instant): Instant => Math.max(-8.64e15, Math.min(8.64e15, at));

  function parse(given: unknown): Instant {
    const text = String(given).trim();
    if (LOCAL.test(text)) return whenShown(Base.parse(`${text}Z`));
    if (ISO.test(text) || HAS_ZONE.test(text)) return Base.parse(text);
    return whenShown(Base.parse(`${text} UTC`));
  }

  function instantOf(given: unknown): Instant {
    if (given instanceof Base) return given.getTime();
    const primitive =
      typeof given === 'object' && given !== null
        ? ((value: unknown) => (typeof value === 'object' ? String(given) : value))(given.valueOf())
        : given;
    return typeof primitive === 'string'
      ? parse(primitive)
      : new Base(primitive as number).getTime();
  }

  class SessionDate extends Base {
    constructor(...parts: unknown[]) {
      super(
        parts.length === 0
          ? now()
          : parts.length === 1
            ? instantOf(parts[0])
            : whenShown(Base.UTC(...(parts as [number, number]))),
      );
    }

    static override now(): number {
      return now();
    }

    static override parse(text: string): number {
      return parse(text);
    }

    override getTimezoneOffset(): number {
      const at = this.getTime();
      return isInstant(at) ? 0 - offsetAt(at) / 60_000 : NaN;
    }

    getYear(): number {
      return this.getFullYear() - 1900;
    }

    setYear(given: unknown): number {
      const year = Math.trunc(Number(given));
      return this.setFullYear(year >= 0 && year <= 99 ? 1900 + year : year);
    }

    override toString(): string {
      return this.#told((shown) => `${dateOf(shown)} ${timeOf(shown)} ${this.#zone()}`);
    }

    override toDateString(): string {
      return this.#told(dateOf);
    }

    override toTimeString(): string {
      return this.#told((shown) => `${timeOf(shown)} ${this.#zone()}`);
    }

    override toLocaleString(): string {
      return this.#told((shown) => `${dateOf(shown)} ${timeOf(shown)}`);
    }

    override toLocaleDateString(): string {
      return this.#told(dateOf);
    }

    override toLocaleTimeString(): string {
      return this.#told(timeOf);
    }

    #told(words: (shown: Date) => string): string {
      const shown = shownAt(this.getTime());
      return Number.isNaN(shown.getTime()) ? 'Invalid Date' : words(shown);
    }

    /** The offset, as in `GMT+0100`. */
    #zone(): string {
      const minutes = Math.round(offsetAt(this.getTime()) / 60_000);
      const all = Math.abs(minutes);
      return `GMT${minutes < 0 ? '-' : '+'}${two(Math.floor(all / 60))}${two(all % 60)}`;
    }
  }

  const own = SessionDate.prototype as unknown as Record<string, unknown>;
  const define = (name: string, value: (this: Date, ...given: number[]) => number) =>
    Object.defineProperty(own, name, { value, writable: true, configurable: true });
  for (const field of [...FIELDS, 'Day'] as const)
    define(`get${field}`, function () {
      return shownAt(this.getTime())[`getUTC${field}`]();
    });
  for (const field of FIELDS)
    define(`set${field}`, function (...given) {
      const shown = shownAt(this.getTime());
      shown[`setUTC${field}`](...(given as [number]));
      return this.setTime(whenShown(shown.getTime()));
    });
  Object.freeze(own);
  return Object.freeze(SessionDate) as unknown as DateConstructor;
}

function dateOf(shown: Date): string {
  const year = shown.getUTCFullYear();
  const spelled = `${year < 0 ? '-' : ''}${String(Math.abs(year)).padStart(year < 0 ? 6 : 4, '0')}`;
  return `${DAYS[shown.getUTCDay()]} ${MONTHS[shown.getUTCMonth()]} ${two(shown.getUTCDate())} ${spelled}`;
}

function timeOf(shown: Date): string {
  return [shown.getUTCHours(), shown.getUTCMinutes(), shown.getUTCSeconds()].map(two).join(':');
}
