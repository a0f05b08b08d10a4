import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { HeadSchema, saveHead } from '@/server/content/reference-data';
import { OfRevision } from '@/server/http/numbers';

const Saving = z.strictObject({ head: HeadSchema, from: OfRevision });

/** Saves the workspace's title, roles and people. */
export async function PUT(request: Request) {
  return answer(request, async () => {
    const { head, from } = await readBody(request, Saving);
    const result = await saveHead(head, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
