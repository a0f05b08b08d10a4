import * as z from 'zod';
import { answer, Refusal } from '@/server/request';
import { whatUses } from '@/server/structure';

const Query = z.object({ part: z.string().min(1), key: z.string().optional() });

/** What uses a part, or one key of its options. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(async () => {
    const query = Query.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!query.success) throw new Refusal(400, 'Say which part.');
    return Response.json(await whatUses((await params).form, query.data.part, query.data.key ?? null));
  });
}
