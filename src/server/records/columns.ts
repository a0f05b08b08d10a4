/**
 * Columns of records in SQL: each is an expression over the values that has an index of its own, per form. The
 * functions are made by the migration; empty values come first.
 */
import { createHash } from 'node:crypto';
import { sql, type SQL } from 'drizzle-orm';
import type { Field, Form } from '../../core/form/definition';
import { fieldsOf } from '../../core/form/fields';
import { isName } from '../../core/form/name';
import { listedFields, narrowedBy } from '../../core/form/listing';
import { isDeadlock, withoutLimit, type Database } from '../database/database';
import { isNumeric } from '../../core/form/traits';

/** Names reach SQL as they are, so nothing else may. */
function spelled(name: string): string {
  if (!isName(name)) throw new Error(`"${name}" is no technical name`);
  return `'${name}'`;
}

/** What a column is compared by. */
export function columnOf(field: Field): SQL {
  return sql.raw(expressionOf(field));
}

function expressionOf(field: Pick<Field, 'name' | 'kind'>): string {
  return isNumeric(field as Field)
    ? `tavro_number("values" -> ${spelled(field.name)})`
    : `(tavro_text("values" -> ${spelled(field.name)}) collate "und-x-icu")`;
}

/** Whether a field holds this text. */
export function fieldIs(form: Form, name: string, value: string): SQL {
  const field = fieldsOf(form).find((one) => one.name === name);
  if (field === undefined) return sql`false`;
  // The exact value as well: columns are compared in small letters.
  return sql`${columnOf(field)} = ${value.toLowerCase()} and "values" ->> ${name} = ${value}`;
}

const digest = (text: string) => createHash('sha1').update(text).digest('hex').slice(0, 16);

/** Columns that an index carries behind its own: a row of an index must not be longer than 2,704 bytes, of which each may take 480. */
const MOST_CARRIED = 4;

/** The columns by which lists are narrowed to an option or a range. Each index carries them, so that records that do not match are passed over without being read. */
function carriedColumns(fields: readonly Field[]): Field[] {
  return fields.filter((field) => isCarried(field)).slice(0, MOST_CARRIED);
}

/** A field of several choices is one text here, which tells nothing about each of them. */
function isCarried(field: Field): boolean {
  return field.kind !== 'choices' && narrowedBy(field) !== 'text';
}

interface Index {
  name: string;
  statement: string;
}

/** An index of a form's records in one order, by a column or by age. */
function indexOf(form: string, ordered: Field | null, carried: readonly Field[]): Index {
  const columns = [
    ...(ordered === null ? [] : [expressionOf(ordered)]),
    '"place"',
    '"id"',
    ...carried.filter((field) => field !== ordered).map(expressionOf),
  ].join(', ');
  const name = `record_by_${digest(`${form} ${columns}`)}`;
  return {
    name,
    statement: `create index concurrently if not exists "${name}" on "record" (${columns}) where "form" = ${spelled(form)}`,
  };
}

/** All indexes of a form: one for each column, and one for the order of a list that is not sorted. */
function indexesOf(form: Form, fields: readonly Field[]): Index[] {
  const carried = carriedColumns(fields);
  const orders = carried.length === 0 ? fields : [null, ...fields];
  return orders.map((ordered) => indexOf(form.name, ordered, carried));
}

/** Lets the database count how often each value comes, by which it chooses among indexes; it does not do so for indexes of one form only. */
function statisticsOf(field: Field): string {
  const expression = expressionOf(field);
  return `create statistics if not exists "record_of_${digest(expression)}" on (${expression}) from "record"`;
}

/** The columns of a form that need an index: those of its list, and those by which it refers to a record of another. */
export function indexedFields(form: Form, referring: readonly string[]): Field[] {
  const names = new Set([...listedFields(form).map((field) => field.name), ...referring]);
  return fieldsOf(form).filter((field) => names.has(field.name));
}

/** Two that make indexes on one table wait for each other until the database ends one of them, so they take turns. */
let last: Promise<void> = Promise.resolve();

/** Makes the indexes a form's records are listed by. Reading and saving go on meanwhile. */
export function indexRecords(form: Form, referring: readonly string[]): Promise<void> {
  const making = last.then(() => withoutLimit((on) => makeIndexes(on, form, referring)));
  last = making.catch(() => undefined);
  return making;
}

/** Tries after which it is given up: another process may make indexes too. */
const MOST_TRIES = 5;

async function makeIndexes(
  on: Database,
  form: Form,
  referring: readonly string[],
  tries = 1,
): Promise<void> {
  try {
    const fields = indexedFields(form, referring);
    const indexes = indexesOf(form, fields);
    for (const { name, statement } of indexes) {
      // One that was given up half way stays behind and is of no use.
      const [half] = (
        await on.execute(
          sql`select 1 from pg_class join pg_index on indexrelid = oid where relname = ${name} and not indisvalid`,
        )
      ).rows;
      if (half !== undefined) await dropIndex(on, name);
      await on.execute(sql.raw(statement));
    }
    for (const field of fields) await on.execute(sql.raw(statisticsOf(field)));
    for (const name of await formerIndexes(on, form.name))
      if (indexes.every((index) => index.name !== name)) await dropIndex(on, name);
    await on.execute(sql`analyze record`);
  } catch (caught) {
    if (!isDeadlock(caught) || tries === MOST_TRIES) throw caught;
    await makeIndexes(on, form, referring, tries + 1);
  }
}

async function dropIndex(on: Database, name: string): Promise<void> {
  await on.execute(sql.raw(`drop index concurrently if exists "${name}"`));
}

/** What a form has by now, also by columns that its list no longer has. */
async function formerIndexes(on: Database, form: string): Promise<string[]> {
  const condition = `(form = ${spelled(form)}::text)`;
  const { rows } = await on.execute(
    sql`select indexname from pg_indexes where tablename = 'record' and starts_with(indexname, 'record_by_') and right(indexdef, ${condition.length}) = ${condition}`,
  );
  return rows.map(({ indexname }) => String(indexname));
}
