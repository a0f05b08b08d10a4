/**
 * The `Intl` that the Temporal polyfill gets inside the machine, which has none: time zones alone, whose rules the
 * session's own engine knows. Scripts get no `Intl`.
 */
import type { Wire } from './wire';

const NAMES = ['year', 'month', 'day', 'hour', 'minute', 'second'];

export function makeIntl(wire: Wire): object {
  class DateTimeFormat {
    readonly #zone: string;
    constructor(_locale?: unknown, options?: { timeZone?: string }) {
      this.#zone = options?.timeZone ?? 'UTC';
      // Throws for a zone that nobody knows.
      if (this.#zone !== 'UTC') this.formatToParts(0);
    }
    formatToParts(at: number): { type: string; value: string }[] {
      const fields = wire.act('zone', { zone: this.#zone, at });
      if (fields.length === 0) throw new RangeError();
      // Years before 1 are counted from 1 in an era of their own.
      const year = fields[0]!;
      return [
        { type: 'era', value: year > 0 ? 'AD' : 'BC' },
        ...NAMES.map((type, i) => ({
          type,
          value: String(i === 0 && year <= 0 ? 1 - year : fields[i]!),
        })),
      ];
    }
    resolvedOptions(): object {
      return { timeZone: this.#zone, calendar: 'iso8601', locale: 'en' };
    }
  }
  return { DateTimeFormat };
}
