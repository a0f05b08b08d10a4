/** Saving records: revisions as for everything else. */
import { and, eq, sql } from 'drizzle-orm';
import type { Values } from '../../core/form/value';
import { ValuesSchema } from '../../core/session/schema';
import { removeRevised, saveRevised, type Saved, type Shelf, type Transaction } from '../revisions/save';
import * as schema from '../schema';

const { record, recordRevision, recordNumber } = schema;

function shelf(form: string, id: string, by: string, release: number | null): Shelf<Values> {
  const where = and(eq(record.form, form), eq(record.id, id));
  return {
    lock: `record ${form} ${id}`,
    async read(tx) {
      const [row] = await tx.select({ values: record.values, revision: record.revision }).from(record).where(where).for('update');
      return row === undefined ? null : { content: ValuesSchema.parse(row.values), revision: row.revision };
    },
    async lastNumber(tx) {
      const [row] = await tx.select({ last: sql<number>`coalesce(max(${recordRevision.number}), 0)::int` }).from(recordRevision).where(and(eq(recordRevision.form, form), eq(recordRevision.id, id)));
      return row!.last;
    },
    async put(tx, values, revision) {
      const savedAt = new Date();
      await tx.insert(recordRevision).values({ form, id, number: revision, values, release, savedBy: by, savedAt });
      if (values === null) await tx.delete(record).where(where);
      else {
        const row = { values, revision, release, savedBy: by, savedAt };
        await tx.insert(record).values({ form, id, ...row }).onConflictDoUpdate({ target: [record.form, record.id], set: row });
      }
    },
  };
}

/** Saves a record made from revision `from`, 0 for a new one. */
export function saveRecord(tx: Transaction, key: { form: string; id: string }, values: Values, from: number, by: string, release: number | null): Promise<Saved<Values>> {
  return saveRevised(tx, shelf(key.form, key.id, by, release), values, from);
}

/** Removes a record at revision `from`; its revisions stay. */
export function removeRecord(tx: Transaction, key: { form: string; id: string }, from: number, by: string): Promise<Saved<Values>> {
  return removeRevised(tx, shelf(key.form, key.id, by, null), from);
}

/** The number of the next new record of a form. */
export async function nextRecordId(tx: Pick<Transaction, 'insert'>, form: string): Promise<string> {
  const [row] = await tx
    .insert(recordNumber)
    .values({ form, next: 2 })
    .onConflictDoUpdate({ target: recordNumber.form, set: { next: sql`${recordNumber.next} + 1` } })
    .returning({ next: recordNumber.next });
  return String(row!.next - 1);
}
