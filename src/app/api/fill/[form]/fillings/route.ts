import * as z from 'zod';
import { beginFilling } from '@/server/fillings/handing-out';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';

const Wanted = z.strictObject({ ticket: z.string().max(20_000) });

/** Begins the filling-in of a form that was handed out, once something is entered. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const { ticket } = await readBody(request, Wanted);
    const { id, opening } = await beginFilling(form, ticket, await currentPerson());
    return Response.json({ filling: id, newId: opening.newId }, { status: 201 });
  });
}
