/** Carrying another name of a part through the records of a form, in the database itself: earlier states have it too, so that they can be compared. */
import { sql, type SQL } from 'drizzle-orm';
import type { PartSort } from '../../core/structure/edit';
import type { Transaction } from '../database/database';

/** Renames a field, or a column of rows (`rows.column`), in all records of a form. */
export async function renameInRecords(
  tx: Transaction,
  form: string,
  part: string,
  to: string,
  sort: PartSort,
): Promise<void> {
  const [owner, cell] = part.split('.') as [string, string?];
  const renamed =
    sort === 'field'
      ? sql`("values" - ${part}::text) || jsonb_build_object(${to}::text, "values" -> ${part}::text)`
      : sql`jsonb_set("values", array[${owner}], (
          select coalesce(jsonb_agg(case when row ? ${cell!} then (row - ${cell!}::text) || jsonb_build_object(${to}::text, row -> ${cell!}::text) else row end order by place), '[]'::jsonb)
          from jsonb_array_elements("values" -> ${owner}::text) with ordinality as rows (row, place)))`;
  for (const table of [sql`record`, sql`record_revision`])
    await tx.execute(
      sql`update ${table} set "values" = ${renamed} where form = ${form} and ${holdsPart(part, sort)}`,
    );
}

/** Puts one key in place of another in a field, or a column of rows, of all records of a form. */
export async function rekeyInRecords(
  tx: Transaction,
  form: string,
  part: string,
  key: string,
  to: string,
): Promise<void> {
  const [owner, cell] = part.split('.') as [string, string?];
  const changed = (value: SQL) => sql`case
      when ${value} = to_jsonb(${key}::text) then to_jsonb(${to}::text)
      when jsonb_typeof(${value}) = 'array' then (
        select coalesce(jsonb_agg(case when one = to_jsonb(${key}::text) then to_jsonb(${to}::text) else one end order by place), '[]'::jsonb)
        from jsonb_array_elements(${value}) with ordinality as several (one, place))
      else ${value} end`;
  const next =
    cell === undefined
      ? changed(sql`("values" -> ${owner}::text)`)
      : sql`(select coalesce(jsonb_agg(case when row ? ${cell} then jsonb_set(row, array[${cell}], ${changed(sql`(row -> ${cell}::text)`)}) else row end order by row_place), '[]'::jsonb)
          from jsonb_array_elements("values" -> ${owner}::text) with ordinality as rows (row, row_place))`;
  for (const table of [sql`record`, sql`record_revision`])
    await tx.execute(
      sql`update ${table} set "values" = jsonb_set("values", array[${owner}], ${next}) where form = ${form} and ${holdsKey(part, key)}`,
    );
}

/** Which records name a field, or have rows that may name a column. */
export function holdsPart(part: string, sort: PartSort): SQL {
  const [owner, cell] = part.split('.') as [string, string?];
  if (sort === 'field' || cell === undefined) return sql`"values" ? ${part}`;
  return sql`jsonb_typeof("values" -> ${owner}::text) = 'array' and jsonb_array_length("values" -> ${owner}::text) > 0`;
}

/** Which records hold a key in a field or column of rows. */
export function holdsKey(part: string, key: string): SQL {
  const [owner, cell] = part.split('.') as [string, string?];
  const held = (value: SQL) =>
    sql`(${value} = to_jsonb(${key}::text) or (jsonb_typeof(${value}) = 'array' and ${value} ? ${key}))`;
  if (cell === undefined) return held(sql`"values" -> ${owner}::text`);
  return sql`jsonb_typeof("values" -> ${owner}::text) = 'array' and exists (select 1 from jsonb_array_elements("values" -> ${owner}::text) as rows (row) where ${held(sql`row -> ${cell}::text`)})`;
}
