import * as z from 'zod';
import { LARGEST_INTEGER, TITLE_CHARACTERS } from '@/core/limits';
import { answer, readBodyIfAny } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { changesSinceRelease, putBack, releaseForm } from '@/server/releases/releasing';

type Context = { params: Promise<{ form: string }> };

/** What the next release would change, and what fails. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => Response.json(await changesSinceRelease((await params).form)));
}

const Reason = z
  .string()
  .trim()
  .min(1)
  .max(5 * TITLE_CHARACTERS);
const Body = z.union([
  z.strictObject({
    /** Why it is made although something fails. */
    reason: Reason.nullable().default(null),
  }),
  /** The number of an earlier release, and why it is put back. */
  z.strictObject({ again: z.int().min(1).max(LARGEST_INTEGER), reason: Reason }),
]);

/** Makes the next release from the form, its behaviours and the tables as saved, or from an earlier release. */
export async function POST(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form } = await params;
    const body = await readBodyIfAny(request, Body);
    const { key } = await currentPerson();
    const made =
      'again' in body
        ? await putBack(form, body.again, body.reason, key)
        : await releaseForm(form, body.reason, key);
    return Response.json(made, { status: 201 });
  });
}
