/** Values worth trying in a field: those of its definition, and those that the scripts compare with. */
import type { Field } from '../form/definition';
import type { Table } from '../form/table';
import type { Value } from '../form/value';
import { DEFAULT_CLOCK } from '../scenario/opening';

/** What scripts mention that a value could be compared with. */
export interface Mentioned {
  numbers: readonly number[];
  texts: readonly string[];
}

/** More are left out: what a script mentions in its hundredth line is compared like what it mentions in its first. */
const MOST = 40;

/** Numbers and texts in sources, without a compiler: what is none after all does no harm. */
export function mentionedIn(sources: readonly { text: string }[]): Mentioned {
  const numbers = new Set<number>();
  const texts = new Set<string>();
  for (const { text } of sources) {
    for (const [number] of text.matchAll(/(?<![\w.])\d+(?:\.\d+)?(?![\w.])/g))
      numbers.add(Number(number));
    for (const [, , inner] of text.matchAll(/(['"])((?:(?!\1)[^\\\n]){1,60})\1/g))
      texts.add(inner!);
  }
  return { numbers: [...numbers].slice(0, MOST), texts: [...texts].slice(0, MOST) };
}

const DAY = 24 * 60 * 60 * 1000;
/** Days from today that are tried: around it, and far enough for a rule about weeks, months and years. */
const DAYS = [-400, -30, -1, 0, 1, 8, 40, 400];

/** Values of a field, the empty one first. */
export function valuesFor(
  field: Field,
  tables: readonly Table[],
  { numbers, texts }: Mentioned,
  today = Date.parse(DEFAULT_CLOCK),
): Value[] {
  switch (field.kind) {
    case 'yes_no':
      return [null, true, false];
    case 'choice':
      return [null, ...field.options.map(({ key }) => key)];
    case 'choices': {
      const keys = field.options.map(({ key }) => key);
      return [[], ...keys.map((key) => [key]), keys];
    }
    case 'reference': {
      const table = tables.find(({ name }) => name === field.table);
      return [null, ...(table?.rows.slice(0, MOST).map((row) => String(row[table.key])) ?? [])];
    }
    case 'number':
    case 'money': {
      const around = [0, 1, ...numbers.flatMap((n) => [n - 1, n, n + 1]), field.min, field.max];
      return [
        null,
        ...new Set(around.filter((n) => n !== undefined && inRange(n, field))),
      ] as Value[];
    }
    case 'date':
      return [null, ...DAYS.map((days) => day(today + days * DAY))];
    case 'time':
      return [null, '06:30', '12:00', '23:45'];
    case 'datetime':
      return [null, ...DAYS.map((days) => `${day(today + days * DAY)}T10:15`)];
    case 'text':
      return [null, 'x', 'No. 4', ...texts];
    case 'file':
      return [null];
    case 'rows':
      return [[]];
  }
}

function inRange(
  n: number,
  { min = -Infinity, max = Infinity }: { min?: number | undefined; max?: number | undefined },
): boolean {
  return n >= min && n <= max;
}

const day = (at: number) => new Date(at).toISOString().slice(0, 10);
