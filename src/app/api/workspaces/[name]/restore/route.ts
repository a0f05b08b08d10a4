import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { restoreWorkspace } from '@/server/hosting/manage';

/** Brings a workspace back that was removed. */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }) {
  return answer(request, async () => {
    await readBody(request, z.strictObject({}));
    await restoreWorkspace((await params).name);
    return Response.json({});
  });
}
