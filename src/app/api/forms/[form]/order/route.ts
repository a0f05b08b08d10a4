import * as z from 'zod';
import { behaviourName } from '@/server/names';
import { answer, readBody, Refusal } from '@/server/request';
import { orderBehaviours } from '@/server/store';

const Body = z.strictObject({ order: z.array(z.string().transform(behaviourName)).max(500) });

/** Brings the behaviours into an order; gives the names that changed with it. */
export async function PUT(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(async () => {
    const { order } = await readBody(request, Body);
    const renames = await orderBehaviours((await params).form, order);
    if (renames === null) throw new Refusal(409, 'Somebody else has added or removed a behaviour meanwhile. Reload to see it.');
    return Response.json({ renames });
  });
}
