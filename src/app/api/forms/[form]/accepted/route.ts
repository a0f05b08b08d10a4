import { AcceptedSchema } from '@/core/compare/accepted-schema';
import { accept, acceptedOf } from '@/server/releases/accepted';
import { currentPerson } from '@/server/routes/person';
import { answer, readBody } from '@/server/routes/request';

type Context = { params: Promise<{ form: string }> };

/** Differences from the last release that were accepted as meant. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => Response.json(await acceptedOf((await params).form)));
}

/** Accepts one until the next release. */
export async function POST(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form } = await params;
    const accepted = await readBody(request, AcceptedSchema);
    return Response.json(await accept(form, accepted, (await currentPerson()).key), {
      status: 201,
    });
  });
}
