/** The values worth trying in each field and column, the most telling first: from definition, tables, services and what scripts mention. */
import { samplesOf } from './samples';
import type { Field, FieldOf } from '../form/definition';
import { cellsOf, fieldsOf } from '../form/fields';
import { faultOf } from '../form/kinds';
import { emptyOf } from '../form/traits';
import { equal, isEmpty, type Value } from '../form/value';
import type { Ground } from './ground';
import type { Mentions } from './mentions';

/** A field or cell that people set, with what is tried in it. */
export interface Driver {
  /** As steps name it. */
  address: string;
  field: Field;
  values: readonly Value[];
}

export interface RowsDriver {
  name: string;
  /** By the names of the columns that people fill in. */
  cells: readonly Driver[];
}

/** Milliseconds. */
const HOUR = 60 * 60 * 1000;
const DAY = 24 * HOUR;

/** Values of a field at most, but for those that its definition names. */
const MOST = 20;

/** Constants of its own that are tried in a field before all others. */
const OWN = 4;

/** Fields that people can ever set. */
const isForPeople = ({ scriptOnly }: Field) => scriptOnly !== true;

export function driversOf(ground: Ground, mentions: Mentions): Driver[] {
  return driversOfFields(ground, mentions, isForPeople);
}

/** Fields for scripts alone of a form that lists children: what they hand back goes there. */
export function returnedDriversOf(ground: Ground, mentions: Mentions): Driver[] {
  if ((ground.form.children ?? []).length === 0) return [];
  return driversOfFields(ground, mentions, (field) => !isForPeople(field));
}

function driversOfFields(
  ground: Ground,
  mentions: Mentions,
  isAmong: (field: Field) => boolean,
): Driver[] {
  return fieldsOf(ground.form)
    .filter((field) => field.kind !== 'rows' && isAmong(field))
    .map((field) => ({
      address: field.name,
      field,
      values: valuesOf(field, ground, mentions, [field.name]),
    }));
}

export function rowsDriversOf(ground: Ground, mentions: Mentions): RowsDriver[] {
  return fieldsOf(ground.form)
    .filter((field) => field.kind === 'rows')
    .map((field) => ({
      name: field.name,
      cells: cellsOf(field)
        .filter((cell) => isForPeople(cell) && cell.locked !== true)
        .map((cell) => ({
          address: cell.name,
          field: cell,
          values: valuesOf(cell, ground, mentions, [`${field.name}.${cell.name}`, field.name]),
        })),
    }));
}

/** Whether the definition finds no fault with a value that is not empty. */
export function isValid(field: Field, value: Value): boolean {
  const fits = (pattern: string, text: string) => new RegExp(`^(?:${pattern})$`, 'u').test(text);
  return !isEmpty(value) && faultOf(value, field, false, fits) === null;
}

/** The last one is empty. `parts` are the names under which conditions ask for it. */
function valuesOf(
  field: Field,
  ground: Ground,
  mentions: Mentions,
  parts: readonly string[],
): Value[] {
  const own = parts.flatMap((part) => mentions.compared[part] ?? []);
  return [...filledValues(field, ground, mentions, own), emptyOf(field)];
}

function filledValues(
  field: Field,
  ground: Ground,
  mentions: Mentions,
  own: readonly number[],
): Value[] {
  switch (field.kind) {
    case 'yes_no':
      return [true, false];
    case 'choice':
      return mentionedFirst(field, mentions);
    case 'choices':
      return severalOf(mentionedFirst(field, mentions));
    case 'reference':
      return rowsOf(field, ground, mentions);
    case 'number':
    case 'money':
      return numbersFor(field, ground, mentions, own);
    case 'date':
      return datesFor(field, ground, mentions);
    case 'time':
      return ['09:00', '14:30', ...mentions.times, '00:00', '23:45'];
    case 'datetime':
      return momentsFor(ground, mentions);
    case 'text':
      return textsFor(field, ground, mentions);
    case 'file': {
      const type = field.types?.[0]?.replace('*', 'png') ?? 'application/pdf';
      return [[{ name: 'papers.pdf', size: 1000, type }]];
    }
    case 'rows':
      return [];
  }
}

/** The keys of options, those first that scripts mention. */
function mentionedFirst({ options }: FieldOf<'choice' | 'choices'>, { words }: Mentions): string[] {
  const keys = options.map(({ key }) => key);
  return keys.sort((a, b) => Number(words.includes(b)) - Number(words.includes(a)));
}

function severalOf(keys: readonly string[]): Value[] {
  const pairs = keys.length > 2 ? [keys.slice(0, 2), keys.slice(1, 3)] : [];
  return [...keys.slice(0, 6).map((key) => [key]), [...keys], ...pairs];
}

/** One row for each combination of what scripts read of it: flags, texts they mention, numbers by how many constants they pass. */
function rowsOf(
  { table: name }: FieldOf<'reference'>,
  { tables }: Ground,
  { names, texts, numbers }: Mentions,
): Value[] {
  const table = tables.find((one) => one.name === name);
  if (table === undefined) return [];
  const met = new Set<string>();
  const first: Value[] = [];
  const rest: Value[] = [];
  for (const row of table.rows) {
    const read = Object.entries(row)
      .filter(
        ([column, value]) =>
          column !== table.key &&
          names.includes(column) &&
          (typeof value !== 'string' || texts.includes(value)),
      )
      .map(([column, value]) => [
        column,
        typeof value === 'number' ? numbers.filter((n) => value >= n).length : value,
      ]);
    const combination = JSON.stringify(read);
    (met.has(combination) ? rest : first).push(String(row[table.key]));
    met.add(combination);
  }
  return [...first.slice(0, 8), ...rest.slice(0, Math.max(0, 3 - first.length))];
}

function numbersFor(
  { kind, min, max, decimals, step }: FieldOf<'number' | 'money'> & { step?: number | undefined },
  { tables }: Ground,
  { names, numbers }: Mentions,
  own: readonly number[],
): Value[] {
  const found = new Set<number>();
  const add = (...some: (number | undefined)[]) => {
    for (const n of some) if (n !== undefined && Math.abs(n) < 1e9) found.add(n);
  };
  // What it is compared with itself, then what others are.
  for (const n of own.slice(0, OWN)) add(n + 1, n - 1, n);
  add(3);
  for (const n of numbers) if (n > 0) add(n, n + 1, n - 1);
  add(min, max, 0);
  const ofTables = new Set(
    tables.flatMap(({ rows }) =>
      rows.flatMap((row) =>
        Object.entries(row).flatMap(([column, value]) =>
          typeof value === 'number' && names.includes(column) ? [value] : [],
        ),
      ),
    ),
  );
  for (const n of [...ofTables].slice(0, 4)) add(n, n + 1, n - 1);
  add(1, 40, 5000);
  const first = [...found].slice(0, MOST - 5);
  const beyond = [
    ...(max === undefined ? [] : [max + 1]),
    ...(min === undefined ? [-1] : [min - 1]),
  ];
  // Fractions only where the field has them: sums of 2.01 end in decimals that right code prints.
  const fractions = kind === 'money' || (decimals ?? 0) > 0 || (step ?? 1) < 1 ? [2.01, 0.1] : [];
  return [...new Set([...first, ...fractions, 5000, ...beyond])];
}

/** Moments around now, so many days and so many hours apart as scripts mention. */
function momentsFor({ clock }: Ground, mentions: Mentions): string[] {
  const first = Date.parse(`${dayAt(clock)}T10:15:00Z`);
  const at = (milliseconds: number) =>
    new Date(first + milliseconds).toISOString().replace('.000Z', 'Z');
  const hours = unitsIn(mentions).filter((n) => n > 0);
  const days = [1, -1, ...unitsIn(mentions)].map((n) => at(n * DAY));
  // The hours themselves, and a little more than they are.
  const around = hours.flatMap((n) => [at(n * HOUR), at((n + 1) * HOUR)]);
  return [...new Set([at(0), ...days.slice(0, 2), ...around, ...days])].slice(0, MOST);
}

/** Constants that may be numbers of days or hours. */
function unitsIn({ numbers }: Mentions): number[] {
  return numbers.filter((n) => Number.isInteger(n) && n > 1 && n < 2000).flatMap((n) => [n, -n]);
}

/** Days from today: near, weeks, months and more than a year away. */
const AROUND_TODAY = [10, -10, 1, -1, 400, -400, 35, -35, 95, -190, 3];

function datesFor({ min, max }: FieldOf<'date'>, { clock }: Ground, mentions: Mentions): Value[] {
  const days = [
    ...(mentions.asks.month ? [60, 120, 180, 240, 300] : []),
    ...AROUND_TODAY,
    ...unitsIn(mentions).flatMap((n) => [n, n + Math.sign(n)]),
  ];
  const found = new Set<string>([dayAt(clock)]);
  for (const named of mentions.dates)
    for (const by of [0, -1, 1]) found.add(dayAt(Date.parse(named), by));
  for (const by of days) found.add(dayAt(clock, by));
  for (const limit of [min, max]) if (limit !== undefined) found.add(limit);
  return [...found].slice(0, MOST);
}

/** The day of a moment in UTC, and so many days on. */
export const dayAt = (moment: number, days = 0): string =>
  new Date(moment + days * DAY).toISOString().slice(0, 10);

function textsFor(field: FieldOf<'text'>, ground: Ground, mentions: Mentions): Value[] {
  const { pattern, maxLength = Infinity } = field;
  const found = new Set<string>();
  const add = (...some: string[]) => {
    for (const text of some) if (text.length <= 60) found.add(text);
  };
  if (pattern === undefined) add('Quay 4');
  else add(...samplesOf(pattern, 2, 1));
  if (field.format !== undefined) add(...SAMPLES[field.format]);
  if (mentions.asks.length)
    for (const n of mentions.numbers)
      if (n > 3 && n < 1000 && n < maxLength) found.add(`${'Long text '.repeat(100).slice(0, n)}x`);
  add(...keysOfServices(ground).filter((key) => pattern === undefined || isValid(field, key)));
  for (const one of mentions.patterns) add(...samplesOf(one, 2, 1));
  if (pattern === undefined)
    for (const text of mentions.texts) if (text.length < 12) add(text, `${text}17`);
  add('ab 12', 'no match', 'A text of more than forty characters, as some are'.slice(0, maxLength));
  return [...[...found].slice(0, 14), ' '];
}

/** Samples of the published formats; the examples that the standards print. */
const SAMPLES: Readonly<Record<NonNullable<FieldOf<'text'>['format']>, readonly string[]>> = {
  email: ['office@port.example'],
  url: ['https://port.example/'],
  phone: ['+4712345678'],
  iban: ['GB29 NWBK 6016 1331 9268 19'],
  imo: ['9074729'],
  container: ['CSQU3054383'],
};

/** What services look rows up by. */
function keysOfServices({ services, tables }: Ground): string[] {
  return services.flatMap(({ functions }) =>
    Object.values(functions).flatMap(({ answers }) => {
      if (answers.from !== 'table') return [];
      const table = tables.find(({ name }) => name === answers.table);
      return Object.keys(answers.where).flatMap((column) =>
        (table?.rows.slice(0, 4) ?? []).flatMap((row) => {
          const value = row[column];
          return typeof value === 'string' ? [value] : [];
        }),
      );
    }),
  );
}

/** Values that are not empty, the first of them. */
export function someOf({ field, values }: Driver, count: number): Value[] {
  return values.filter((value) => !equal(value, emptyOf(field))).slice(0, count);
}

/** Values that the definition finds no fault with. */
export function validOf({ field, values }: Pick<Driver, 'field' | 'values'>): Value[] {
  return values.filter((value) => isValid(field, value));
}
