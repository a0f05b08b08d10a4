import * as z from 'zod';
import { KEPT_FILLINGS_PER_PAGE } from '@/core/limits';
import { keptFillings } from '@/server/fillings/kept';
import { answer, readQuery } from '@/server/routes/request';

type Context = { params: Promise<{ form: string }> };

const Query = z.strictObject({
  /** The number of the last one that was read; the newest unless said. */
  before: z.coerce.number().int().positive().max(2_147_483_647).optional(),
  most: z.coerce.number().int().min(1).max(KEPT_FILLINGS_PER_PAGE).default(KEPT_FILLINGS_PER_PAGE),
});

/** What people did in filling-ins of the form, the newest first, and how many there are in all. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { before, most } = readQuery(request, Query);
    return Response.json(await keptFillings((await params).form, before ?? null, most));
  });
}
