import { TABLE_COLUMNS, TABLE_REQUEST_BYTES } from '@/core/limits';
import * as z from 'zod';
import { ColumnSchema } from '@/core/form/table';
import { SpellingSchema } from '@/core/workspace/csv-spelling';
import { answer, readBody } from '@/server/routes/request';
import { task } from '@/server/machines/tasks';

const Wanted = z.strictObject({
  file: z.string().max(255),
  text: z.string(),
  /** The columns as corrected by the person, in the order of the file; guessed when left out. */
  columns: z.array(ColumnSchema).max(TABLE_COLUMNS).optional(),
  key: z.string().max(100).nullable().optional(),
  /** How the file is spelled, as corrected by the person; recognised when left out. */
  spelling: SpellingSchema.optional(),
});

/** Reads a CSV file without keeping it: its columns as guessed or as told, its rows, and the cells that do not fit. */
export async function POST(request: Request) {
  return answer(request, async () =>
    Response.json(await task('preview', await readBody(request, Wanted, TABLE_REQUEST_BYTES))),
  );
}
