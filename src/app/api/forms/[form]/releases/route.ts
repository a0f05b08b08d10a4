import * as z from 'zod';
import { TITLE_CHARACTERS } from '@/core/limits';
import { answer, readBodyIfAny } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { changesSinceRelease, releaseForm } from '@/server/releases/releasing';

type Context = { params: Promise<{ form: string }> };

/** What the next release would change, and what fails. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => Response.json(await changesSinceRelease((await params).form)));
}

const Body = z.strictObject({
  /** Why it is made although something fails. */
  reason: z
    .string()
    .trim()
    .min(1)
    .max(5 * TITLE_CHARACTERS)
    .nullable()
    .default(null),
});

/** Makes the next release from the form, its behaviours and the tables as saved. */
export async function POST(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form } = await params;
    const { reason } = await readBodyIfAny(request, Body);
    return Response.json(await releaseForm(form, reason, (await currentPerson()).key), {
      status: 201,
    });
  });
}
