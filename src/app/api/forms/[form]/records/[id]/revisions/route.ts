import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { recordHistory } from '@/server/records/read';
import { RevisionInAddress } from '@/server/http/numbers';

const Query = z.strictObject({ before: RevisionInAddress.optional() });

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
