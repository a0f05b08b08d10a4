/** All records of a form as one file, however many: read and sent piece by piece, in the order of their ids. */
import { sql } from 'drizzle-orm';
import * as z from 'zod';
import type { Form } from '../../core/form/definition';
import { ValuesSchema } from '../../core/session/schema';
import { recordWriter, type RecordFormat } from '../../core/workspace/records-out';
import { database } from '../database/database';
import { currentWorkspace, inWorkspace } from '../database/current-workspace';

/** Records that are read at once: some hundred kilobytes. */
const PIECE = 500;

const Row = z.object({ id: z.string(), values: ValuesSchema });

/** The file. What is saved while it is sent is in it or not; nothing is in it twice. */
export function exportedRecords(form: Form, format: RecordFormat): ReadableStream<Uint8Array> {
  const writer = recordWriter(form, format);
  const text = new TextEncoder();
  // The stream is read after the request's work has ended.
  const workspace = currentWorkspace();
  let after: string | null = null;
  let first = true;
  return new ReadableStream({
    start: (controller) => controller.enqueue(text.encode(writer.head)),
    pull: (controller) =>
      inWorkspace(workspace, async () => {
        const { rows } = await database().execute(
          sql`select id, "values" from record where form = ${form.name} and (${after}::text is null or id > ${after}) order by id limit ${PIECE}`,
        );
        const records = z.array(Row).parse(rows);
        if (records.length > 0) controller.enqueue(text.encode(writer.some(records, first)));
        first = first && records.length === 0;
        after = records.at(-1)?.id ?? after;
        if (records.length === PIECE) return;
        controller.enqueue(text.encode(writer.end));
        controller.close();
      }),
  });
}
