import { BEHAVIOURS_PER_FORM, SHARED_SCRIPTS } from '@/core/limits';
import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { orderBehaviours, scriptName } from '@/server/content/behaviours';

const Body = z.strictObject({
  order: z.array(z.string()).max(BEHAVIOURS_PER_FORM + SHARED_SCRIPTS),
});

/** Brings the behaviours into an order; gives the names that changed with it. */
export async function PUT(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { order } = await readBody(request, Body);
    const renames = await orderBehaviours(
      (await params).form,
      order.map(scriptName),
      (await currentPerson()).key,
    );
    return Response.json({ renames });
  });
}
