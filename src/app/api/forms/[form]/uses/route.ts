import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { whatUses } from '@/server/content/structure';

const Query = z.strictObject({
  part: z.string().min(1).max(200),
  key: z.string().max(500).optional(),
});

/** What uses a part, or one key of its options. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { part, key } = readQuery(request, Query);
    return Response.json(await whatUses((await params).form, part, key ?? null));
  });
}
