import * as z from 'zod';
import { answer, readQuery } from '@/server/http/request';
import { recordHistory } from '@/server/records/read';

const Query = z.strictObject({ before: z.coerce.number().int().min(1).optional() });

/** Earlier states of a record, the newest first. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ form: string; id: string }> },
) {
  return answer(request, async () => {
    const { form, id } = await params;
    return Response.json(await recordHistory(form, id, readQuery(request, Query).before));
  });
}
