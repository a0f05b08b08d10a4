import { TABLE_REQUEST_BYTES } from '@/core/limits';
import * as z from 'zod';
import { TableSchema } from '@/core/form/table';
import { writeRows } from '@/core/workspace/write';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { Removing } from '@/server/http/removing';
import { currentPerson } from '@/server/routes/person';
import { readTable, removeTable, saveTable } from '@/server/content/reference-data';
import { Revision } from '@/server/http/numbers';

type Props = { params: Promise<{ name: string }> };

const Saving = z.strictObject({ table: TableSchema, from: Revision });
const Wanted = z.strictObject({ formulas: z.literal('yes').optional() });

/** The rows as CSV. Cells that a spreadsheet would read as formulas are kept from it, unless `formulas=yes`. */
export async function GET(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { name } = await params;
    const { formulas } = readQuery(request, Wanted);
    const found = await readTable(name);
    if (found === null) throw new Refusal(404, `There is no table "${name}".`);
    const headers = {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${found.table.name}.csv"`,
    };
    return new Response(
      writeRows(found.table.columns, found.table.rows, { formulas: formulas !== undefined }),
      { headers },
    );
  });
}

/** Saves a table, unless somebody else has saved it meanwhile. */
export async function PUT(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { name } = await params;
    const { table, from } = await readBody(request, Saving, TABLE_REQUEST_BYTES);
    if (table.name !== name)
      throw new Refusal(400, `This is the table "${table.name}", not "${name}".`);
    const result = await saveTable(table, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

/** Removes a table as it was seen. */
export async function DELETE(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { from } = readQuery(request, Removing);
    await removeTable((await params).name, from, (await currentPerson()).key);
    return Response.json({});
  });
}
