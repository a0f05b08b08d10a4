import * as z from 'zod';
import { FILES_PER_WORKSPACE } from '@/core/limits';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { asBrought, BROUGHT_BYTES, BroughtSchema } from '@/server/workspaces/brought';
import { readBrought, readTakings, take } from '@/server/workspaces/taking';

const Body = z.strictObject({
  folder: BroughtSchema,
  units: z.array(z.string().max(300)).min(1).max(FILES_PER_WORKSPACE),
  /** Where it comes from, in words. */
  what: z.string().trim().min(1).max(200),
});

/** What was taken and can be undone. */
export async function GET(request: Request) {
  return answer(request, async () => Response.json(await readTakings()));
}

/** Takes some of a folder into the workspace, all of it or none. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { folder, units, what } = await readBody(request, Body, BROUGHT_BYTES);
    const incoming = await readBrought(asBrought(folder));
    const by = (await currentPerson()).key;
    return Response.json(await take(incoming, units, what, by), { status: 201 });
  });
}
