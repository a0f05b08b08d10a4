import * as z from 'zod';
import { answer, readBody } from '@/server/http/request';
import { currentPerson } from '@/server/person';
import { renamePart } from '@/server/workspace/structure';

const Renaming = z.strictObject({
  part: z.string().min(1).max(200),
  to: z.string().min(1).max(60),
  apply: z
    .boolean()
    .meta({ description: 'Whether to take the plan over; otherwise it is only shown.' }),
});

/** Plans the renaming of a part through behaviours, scenarios and records, and takes the plan over when asked to. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const { part, to, apply } = await readBody(request, Renaming);
    return Response.json(await renamePart(form, part, to, apply, (await currentPerson()).key));
  });
}
