import { Refusal } from '@/server/http/refusal';
import { answer } from '@/server/http/request';
import { CannotRelease, makeRelease } from '@/server/releases';

/** Makes the next release from the form, its behaviours and the tables as saved. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    try {
      return Response.json(await makeRelease(form), { status: 201 });
    } catch (caught) {
      throw caught instanceof CannotRelease ? new Refusal(422, caught.message) : caught;
    }
  });
}
