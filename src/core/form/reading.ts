/** How values read to people, kind by kind. Apart from `kinds/`, so that a page that only shows values brings no checks. */
import { showDate, type DateStyle } from './date-style';
import type { Field, FieldKind, FieldOf, Option } from './definition';
import type { FileValue } from './kinds/file';
import { round } from './round';
import type { TableIndex } from './table-index';
import { isEmpty, type Value } from './value';

/** What the reading of a value may look at besides the field: the options offered now and the tables. */
export interface ReadingContext {
  /** Options a script has set, or null while those of the definition stand. */
  options: readonly Option[] | null;
  table(name: string): TableIndex;
  /** How dates read to people: as they are stored, unless said. */
  dates?: DateStyle;
}

type Reader<F extends Field> = (value: Value, field: F, around: ReadingContext) => string;

const labelOf = (
  key: string,
  { options: defined }: { options: readonly Option[] },
  { options }: ReadingContext,
) => [...(options ?? []), ...defined].find((option) => option.key === key)?.label ?? key;

/** A number of digits behind the point that a money field stores. */
export function moneyDecimals({ decimals }: FieldOf<'money'>): number {
  return decimals ?? 2;
}

export function rowsInWords(rows: number): string {
  return rows === 1 ? '1 row' : `${rows} rows`;
}

export function bytesInWords(size: number): string {
  if (size < 1024) return `${size} bytes`;
  const kib = size / 1024;
  return kib < 1024 ? `${Math.round(kib)} KiB` : `${(kib / 1024).toFixed(1)} MiB`;
}

/** `2031-05-02T09:00:00Z` as `2031-05-02 09:00 UTC`; another offset is shown as it is. */
export function momentInWords(moment: string, dates: DateStyle = 'iso'): string {
  const [day, rest] = moment.split('T') as [string, string];
  const offset = /(?:Z|[+-]\d{2}:\d{2})$/.exec(rest)![0];
  return `${showDate(day, dates)} ${rest.slice(0, 5)} ${offset === 'Z' ? 'UTC' : offset}`;
}

const readings: { [K in FieldKind]: Reader<FieldOf<K>> } = {
  text: (value) => String(value),
  number(value, { decimals, unit }) {
    const shown =
      decimals === undefined ? String(value) : round(value as number, decimals).toFixed(decimals);
    return unit === undefined ? shown : `${shown} ${unit}`;
  },
  money(value, field) {
    const shown = (value as number).toFixed(moneyDecimals(field));
    return field.currency === undefined ? shown : `${shown} ${field.currency}`;
  },
  date: (value, _, { dates = 'iso' }) => showDate(String(value), dates),
  time: (value) => String(value),
  datetime: (value, _, { dates = 'iso' }) => momentInWords(value as string, dates),
  yes_no: (value) => (value === true ? 'Yes' : 'No'),
  choice: (value, field, around) => labelOf(String(value), field, around),
  choices: (value, field, around) =>
    (value as readonly string[]).map((key) => labelOf(key, field, around)).join(', '),
  reference(value, field, around) {
    const table = around.table(field.table);
    const row = table.find(String(value));
    return row === null ? String(value) : table.optionOf(row).label;
  },
  file: (value) =>
    (value as unknown as readonly FileValue[])
      .map(({ name, size }) => `${name} (${bytesInWords(size)})`)
      .join(', '),
  rows: (value) => rowsInWords((value as readonly Value[]).length),
};

/** How a value reads to people; empty reads as nothing at all. */
export function textOf(value: Value, field: Field, around: ReadingContext): string {
  // Each entry takes the field of its own kind; the table's type says so, a single lookup cannot.
  const read = readings[field.kind] as unknown as Reader<Field>;
  return isEmpty(value) ? '' : read(value, field, around);
}

/** The options that the definition gives a field of keys. */
export function definedOptions(
  field: FieldOf<'choice' | 'choices' | 'reference'>,
  table: (name: string) => TableIndex,
): readonly Option[] {
  return field.kind === 'reference' ? table(field.table).options : field.options;
}
