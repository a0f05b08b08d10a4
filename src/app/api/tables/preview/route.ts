import * as z from 'zod';
import { ColumnSchema } from '@/core/form/table';
import { guessColumns, readRows } from '@/core/workspace/csv';
import type { Fault } from '@/core/workspace/json';
import { answer, readBody } from '@/server/request';

const Wanted = z.strictObject({
  file: z.string().max(255),
  text: z.string(),
  /** The columns as corrected by the person, in the order of the file; guessed when left out. */
  columns: z.array(ColumnSchema).optional(),
  key: z.string().nullable().optional(),
});

const MOST_BYTES = 8 * 1024 * 1024;

/** Reads a CSV file without keeping it: its columns as guessed or as told, its rows, and every cell that does not fit. */
export async function POST(request: Request) {
  return answer(async () => {
    const { file, text, columns, key } = await readBody(request, Wanted, MOST_BYTES);
    const faults: Fault[] = [];
    const guess = guessColumns(file, text, faults);
    if (guess === null) return Response.json({ guess: null, rows: [], faults });
    const told = columns ?? guess.columns.map(({ name, kind, label }) => ({ name, kind, ...(label === undefined ? {} : { label }) }));
    const rows = readRows(file, text, { key: key ?? guess.key ?? told[0]!.name, columns: told }, faults, told.map((column) => column.name));
    return Response.json({ guess: { ...guess, columns: told }, rows, faults });
  });
}
