import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { scriptHistory, sharedScript } from '@/server/content/behaviours';
import { RevisionInAddress } from '@/server/http/numbers';

const Query = z.strictObject({ before: RevisionInAddress.optional() });

/** Texts that shared code has had, the newest first; a page of them, before a revision when one is given. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ folder: string; file: string }> },
) {
  return answer(request, async () => {
    const { folder, file } = await params;
    return Response.json(
      await scriptHistory(sharedScript(folder, file), readQuery(request, Query).before),
    );
  });
}
