import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { ownScript, scriptHistory } from '@/server/content/behaviours';
import { RevisionInAddress } from '@/server/http/numbers';

const Query = z.strictObject({ before: RevisionInAddress.optional() });

/** Texts a behaviour has had, the newest first; a page of them, before a revision when one is given. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ form: string; name: string }> },
) {
  return answer(request, async () => {
    const { form, name } = await params;
    return Response.json(
      await scriptHistory(ownScript(form, name), readQuery(request, Query).before),
    );
  });
}
