/**
 * What each kind of field is, to pages and rooms that do not read or check values: one entry for each kind. Apart from
 * `kinds/`, so that a page that only shows values brings no checks. docs/architecture.md walks through a new kind.
 */
import { showDate } from './date-style';
import type { Field, FieldKind, FieldOf } from './definition';
import type { FileValue } from './kinds/file';
import { counted } from '../counted';
import { bytesInWords, labelOf, moneyDecimals, momentInWords } from './reading';
import type { ReadingContext } from './reading';
import { round } from './round';
import type { ScalarKind } from './scalar';
import { isEmpty, type Value } from './value';

/** How a value is written by hand, in a line of an editor or a cell of a table. */
export type Spelling = 'text' | 'number' | 'yes or no' | 'keys' | 'json';

interface Traits<F extends Field> {
  /** As people pick it from a list. */
  readonly label: string;
  /** What it holds, in the words of hovers and outlines. */
  inWords(field: F): string;
  /** How a value that is not empty reads to people. */
  read(value: Value, field: F, around: ReadingContext): string;
  readonly spelling: Spelling;
  /** The kind of column by which a value is written to CSV and read from it; null where it takes more than that. */
  readonly column: ScalarKind | null;
  /** It holds several things, so that empty is `[]` and not null. */
  readonly isList: boolean;
  /** Its values are keys of options, so that what is offered can change under them. */
  readonly holdsKeys: boolean;
  /** Its values are compared and added as numbers; all others are compared as texts, which dates and times are too. */
  readonly isNumber: boolean;
  /** How a list of records is narrowed down by it; null where it is no column of one. */
  readonly narrowed: 'option' | 'range' | 'text' | null;
}

const LINE = { column: 'text', isList: false, holdsKeys: false, isNumber: false } as const;
const NUMERIC = { ...LINE, column: 'number', isNumber: true, spelling: 'number' } as const;

const FORMATS = {
  email: 'e-mail address',
  url: 'web address',
  phone: 'telephone number as of E.164',
  iban: 'IBAN',
  imo: 'IMO number',
  container: 'container number as of ISO 6346',
} as const;

const TRAITS: { readonly [K in FieldKind]: Traits<FieldOf<K>> } = {
  text: {
    ...LINE,
    label: 'Text',
    inWords: ({ format }) => (format === undefined ? 'text' : FORMATS[format]),
    read: (value) => String(value),
    spelling: 'text',
    narrowed: 'text',
  },
  number: {
    ...NUMERIC,
    label: 'Number',
    inWords: ({ unit }) => (unit === undefined ? 'number' : `number in ${unit}`),
    read(value, { decimals, unit }) {
      const shown =
        decimals === undefined ? String(value) : round(value as number, decimals).toFixed(decimals);
      return unit === undefined ? shown : `${shown} ${unit}`;
    },
    narrowed: 'range',
  },
  money: {
    ...NUMERIC,
    label: 'Money',
    inWords: ({ currency }) => (currency === undefined ? 'money' : `money in ${currency}`),
    read(value, field) {
      const shown = (value as number).toFixed(moneyDecimals(field));
      return field.currency === undefined ? shown : `${shown} ${field.currency}`;
    },
    narrowed: 'range',
  },
  date: {
    ...LINE,
    label: 'Date',
    inWords: () => 'date, YYYY-MM-DD',
    read: (value, _, { dates = 'iso' }) => showDate(String(value), dates),
    spelling: 'text',
    column: 'date',
    narrowed: 'range',
  },
  time: {
    ...LINE,
    label: 'Time',
    inWords: () => 'time, HH:MM',
    read: (value) => String(value),
    spelling: 'text',
    narrowed: 'range',
  },
  datetime: {
    ...LINE,
    label: 'Date and time',
    inWords: () => 'date and time, as 2031-05-02T09:00:00Z',
    read: (value, _, { dates = 'iso' }) => momentInWords(value as string, dates),
    spelling: 'text',
    narrowed: 'range',
  },
  yes_no: {
    ...LINE,
    label: 'Yes or no',
    inWords: () => 'yes or no; null until answered',
    read: (value) => (value === true ? 'Yes' : 'No'),
    spelling: 'yes or no',
    column: 'yes_no',
    narrowed: 'option',
  },
  choice: {
    ...LINE,
    label: 'Choice',
    inWords: () => 'choice',
    read: (value, field, around) => labelOf(String(value), field, around),
    spelling: 'text',
    holdsKeys: true,
    narrowed: 'option',
  },
  choices: {
    ...LINE,
    label: 'Several choices',
    inWords: () => 'choices: a list of keys',
    read: (value, field, around) =>
      (value as readonly string[]).map((key) => labelOf(key, field, around)).join(', '),
    spelling: 'keys',
    column: null,
    isList: true,
    holdsKeys: true,
    narrowed: 'option',
  },
  reference: {
    ...LINE,
    label: 'Reference',
    inWords: ({ table }) => `key of a row of ${table}`,
    read(value, field, around) {
      const table = around.table(field.table);
      const row = table.find(String(value));
      return row === null ? String(value) : table.optionOf(row).label;
    },
    spelling: 'text',
    holdsKeys: true,
    narrowed: 'option',
  },
  file: {
    ...LINE,
    label: 'File',
    inWords: () => 'files: a list of name, size and type',
    read: (value) =>
      (value as unknown as readonly FileValue[])
        .map(({ name, size }) => `${name} (${bytesInWords(size)})`)
        .join(', '),
    spelling: 'json',
    column: null,
    isList: true,
    narrowed: null,
  },
  rows: {
    ...LINE,
    label: 'Rows',
    inWords: ({ fields }) => `rows of ${fields.map((cell) => cell.name).join(', ')}`,
    read: (value) => counted((value as readonly Value[]).length, 'row'),
    spelling: 'json',
    column: null,
    isList: true,
    narrowed: null,
  },
};

/** What the kind of a field is. */
export function traitsOf(field: Pick<Field, 'kind'>): Traits<Field> {
  // Each entry takes the field of its own kind; the table's type says so, a single lookup cannot.
  return TRAITS[field.kind] as unknown as Traits<Field>;
}

export const KINDS = Object.keys(TRAITS) as readonly FieldKind[];

/** The kinds to pick one from. */
export const KIND_OPTIONS = KINDS.map((key) => ({ key, label: TRAITS[key].label }));

/** Whether a field holds several things. */
export function isList(field: Pick<Field, 'kind'>): boolean {
  return traitsOf(field).isList;
}

/** A field whose values are keys: of its own options, or of a table's rows. */
export function holdsKeys(field: Field): field is FieldOf<'choice' | 'choices' | 'reference'> {
  return traitsOf(field).holdsKeys;
}

/** A field whose values are numbers. */
export function isNumeric(field: Field): field is FieldOf<'number' | 'money'> {
  return traitsOf(field).isNumber;
}

/** A field that people answer by picking from what is known: options, rows of a table, yes and no. */
export function isPicked(field: Pick<Field, 'kind'>): boolean {
  return traitsOf(field).narrowed === 'option';
}

const NOTHING: readonly Value[] = Object.freeze([]);

/** What a field holds when nothing is in it: `[]` for those that hold several things, else `null`. */
export function emptyOf(field: Field): Value {
  return isList(field) ? NOTHING : null;
}

/** How a value reads to people; empty reads as nothing at all. */
export function textOf(value: Value, field: Field, around: ReadingContext): string {
  return isEmpty(value) ? '' : traitsOf(field).read(value, field, around);
}

/** What kind of field it is, in the words people read in hovers and outlines. */
export function kindInWords(field: Field): string {
  return traitsOf(field).inWords(field);
}
