import * as z from 'zod';
import { settleConflict } from '@/server/folders/live';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { currentWorkspace } from '@/server/database/current-workspace';

const Body = z.strictObject({ unit: z.string().max(300), take: z.enum(['app', 'folder']) });

/** Ends a conflict between the workspace and its folder with what one of them has. */
export async function PUT(request: Request) {
  return answer(request, async () => {
    const { unit, take } = await readBody(request, Body);
    await settleConflict(currentWorkspace(), unit, take, (await currentPerson()).key);
    return Response.json({});
  });
}
