import * as z from 'zod';
import { KEPT_FILLINGS_PER_PAGE, LARGEST_INTEGER } from '@/core/limits';
import { keptFillings } from '@/server/fillings/kept';
import { answer, readQuery } from '@/server/routes/request';

type Context = { params: Promise<{ form: string }> };

const Query = z.strictObject({
  /** The number of the last one that was read; the newest unless said. */
  before: z.coerce.number().int().min(1).max(LARGEST_INTEGER).optional(),
  most: z.coerce.number().int().min(1).max(KEPT_FILLINGS_PER_PAGE).default(KEPT_FILLINGS_PER_PAGE),
});

/** The kept filling-ins of the form, the newest first, with how many there are in all. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { before, most } = readQuery(request, Query);
    return Response.json(await keptFillings((await params).form, before ?? null, most));
  });
}
