import { and, eq, inArray, sql } from 'drizzle-orm';
import * as z from 'zod';
import { database } from '../database/database';
import { filling, recording } from '../database/schema';

/** How many recordings there are of each of these records of a form. */
export async function countRecordings(
  form: string,
  records: readonly string[],
): Promise<Record<string, number>> {
  if (records.length === 0) return {};
  const rows = await database()
    .select({ record: filling.savedAs, count: sql<number>`count(*)::int` })
    .from(recording)
    .innerJoin(filling, eq(filling.id, recording.filling))
    .where(and(eq(recording.form, form), inArray(filling.savedAs, [...records])))
    .groupBy(filling.savedAs);
  return Object.fromEntries(rows.map(({ record, count }) => [record!, z.number().parse(count)]));
}
