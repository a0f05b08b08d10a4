import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { asBrought, BROUGHT_BYTES, BroughtSchema } from '@/server/workspaces/brought';
import { planTaking, readBrought } from '@/server/workspaces/taking';

const Body = z.strictObject({ folder: BroughtSchema, records: z.boolean() });

/** What taking a folder would change in the workspace; nothing is changed. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { folder, records } = await readBody(request, Body, BROUGHT_BYTES);
    const incoming = await readBrought(asBrought(folder));
    return Response.json({
      title: incoming.workspace.title,
      /** Whether it says what it was made from. */
      known: incoming.base !== null,
      changes: await planTaking(incoming, records),
    });
  });
}
