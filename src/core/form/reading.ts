/** What it takes to show values to people: the options and tables around them, and the words for sizes, moments and counts. */
import { showDate, type DateStyle } from './date-style';
import type { FieldOf, Option } from './definition';
import type { TableIndex } from './table-index';

/** What the reading of a value may look at besides the field: the options offered now and the tables. */
export interface ReadingContext {
  /** Options a script has set, or null while those of the definition stand. */
  options: readonly Option[] | null;
  table(name: string): TableIndex;
  /** How dates read to people: as they are stored, unless said. */
  dates?: DateStyle;
}

/** The label of an option; a key without an option is shown as it is. */
export function labelOf(
  key: string,
  { options: defined }: { options: readonly Option[] },
  { options }: ReadingContext,
): string {
  return [...(options ?? []), ...defined].find((option) => option.key === key)?.label ?? key;
}

/** A number of digits behind the point that a money field stores. */
export function moneyDecimals({ decimals }: FieldOf<'money'>): number {
  return decimals ?? 2;
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

/** The options that the definition gives a field of keys. */
export function definedOptions(
  field: FieldOf<'choice' | 'choices' | 'reference'>,
  table: (name: string) => TableIndex,
): readonly Option[] {
  return field.kind === 'reference' ? table(field.table).options : field.options;
}
