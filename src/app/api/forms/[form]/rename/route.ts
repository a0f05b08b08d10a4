import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { renamePart } from '@/server/content/structure';

const Renaming = z.strictObject({
  part: z.string().min(1).max(200),
  key: z
    .string()
    .max(500)
    .nullable()
    .default(null)
    .describe('The key of an option or a stage of the part, to change that.'),
  to: z.string().min(1).max(200),
  apply: z.boolean().describe('Whether to take the plan over; otherwise it is only shown.'),
});

/** Plans the renaming of a part, or of a key of its options, through behaviours, scenarios and records, and takes the plan over when asked to. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const { apply, ...renaming } = await readBody(request, Renaming);
    return Response.json(await renamePart(form, renaming, apply, (await currentPerson()).key));
  });
}
