import * as z from 'zod';
import { TableSchema } from '@/core/form/table';
import { writeRows } from '@/core/workspace/write';
import { readTable, removeTable, saveTable } from '@/server/reference';
import { answer, readBody, Refusal } from '@/server/request';

type Props = { params: Promise<{ name: string }> };

const Saving = z.strictObject({ table: TableSchema, from: z.number().int().min(0) });

/** Ten thousand rows of a dozen columns stay below it. */
const MOST_BYTES = 8 * 1024 * 1024;

/** The rows as CSV. */
export async function GET(_: Request, { params }: Props) {
  return answer(async () => {
    const { name } = await params;
    const found = await readTable(name);
    if (found === null) throw new Refusal(404, `There is no table "${name}".`);
    const headers = { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': `attachment; filename="${name}.csv"` };
    return new Response(writeRows(found.table.columns, found.table.rows), { headers });
  });
}

/** Saves a table, unless somebody else has saved it meanwhile. */
export async function PUT(request: Request, { params }: Props) {
  return answer(async () => {
    const { name } = await params;
    const { table, from } = await readBody(request, Saving, MOST_BYTES);
    if (table.name !== name) throw new Refusal(400, `This is the table "${table.name}", not "${name}".`);
    const result = await saveTable(table, from);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

export async function DELETE(_: Request, { params }: Props) {
  return answer(async () => {
    await removeTable((await params).name);
    return Response.json({});
  });
}
