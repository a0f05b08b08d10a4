import * as z from 'zod';
import { TABLE_REQUEST_BYTES } from '@/core/limits';
import { RECORD_FORMATS, type RecordFormat } from '@/core/workspace/records-out';
import { answer, readBody } from '@/server/routes/request';
import { readBroughtRecords } from '@/server/fillings/bring';

const Body = z.strictObject({
  text: z.string(),
  as: z.enum(Object.keys(RECORD_FORMATS) as [RecordFormat, ...RecordFormat[]]),
});

/** What a file of records holds, and what of it cannot be read; nothing is saved. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { text, as } = await readBody(request, Body, TABLE_REQUEST_BYTES);
    return Response.json(await readBroughtRecords((await params).form, text, as));
  });
}
