import * as z from 'zod';
import { RECORD_FORMATS, type RecordFormat } from '@/core/workspace/records-out';
import { answer, readQuery } from '@/server/routes/request';
import { exportedRecords } from '@/server/records/export';
import { existingForm } from '@/server/content/forms';

const Wanted = z.strictObject({
  as: z.enum(Object.keys(RECORD_FORMATS) as [RecordFormat, ...RecordFormat[]]),
});

/** All records of a form as a file, sent piece by piece. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const form = await existingForm((await params).form);
    const { as } = readQuery(request, Wanted);
    const { type, ending } = RECORD_FORMATS[as];
    return new Response(exportedRecords(form, as), {
      headers: {
        'content-type': type,
        'content-disposition': `attachment; filename="${form.name}.${ending}"`,
      },
    });
  });
}
