/**
 * Columns of records in SQL: each is an expression over the values that has an index of its own, per form. The
 * functions are made by the migration; empty values come first.
 */
import { createHash } from 'node:crypto';
import { sql, type SQL } from 'drizzle-orm';
import type { Field, Form } from '../../core/form/definition';
import { fieldsOf } from '../../core/form/fields';
import { listedFields, sortsAsNumber } from '../../core/form/listing';
import { isDeadlock, withoutLimit, type Database } from '../database';

/** Names reach SQL as they are, so nothing else may. */
const SAFE = /^[a-z][a-z0-9_]*$/;

function spelled(name: string): string {
  if (!SAFE.test(name)) throw new Error(`"${name}" is no technical name`);
  return `'${name}'`;
}

/** What a column is compared by. */
export function columnOf(field: Field): SQL {
  return sql.raw(expressionOf(field));
}

function expressionOf(field: Pick<Field, 'name' | 'kind'>): string {
  return sortsAsNumber(field as Field)
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

/** The index of a column: its name, and the statement that makes it. */
function indexOf(form: string, field: Field): { name: string; statement: string } {
  const expression = expressionOf(field);
  const name = `record_by_${digest(`${form} ${expression}`)}`;
  return {
    name,
    statement: `create index concurrently if not exists "${name}" on "record" (${expression}, "place", "id") where "form" = ${spelled(form)}`,
  };
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
    for (const field of indexedFields(form, referring)) {
      const { name, statement } = indexOf(form.name, field);
      // One that was given up half way stays behind and is of no use.
      const [half] = (
        await on.execute(
          sql`select 1 from pg_class join pg_index on indexrelid = oid where relname = ${name} and not indisvalid`,
        )
      ).rows;
      if (half !== undefined)
        await on.execute(sql.raw(`drop index concurrently if exists "${name}"`));
      await on.execute(sql.raw(statement));
      await on.execute(sql.raw(statisticsOf(field)));
    }
    await on.execute(sql`analyze record`);
  } catch (caught) {
    if (!isDeadlock(caught) || tries === MOST_TRIES) throw caught;
    await makeIndexes(on, form, referring, tries + 1);
  }
}
