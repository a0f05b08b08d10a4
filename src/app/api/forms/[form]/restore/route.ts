import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { restoreForm } from '@/server/content/forms';

/** Brings a removed form back. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    await readBody(request, z.strictObject({}));
    await restoreForm((await params).form, (await currentPerson()).key);
    return Response.json({});
  });
}
