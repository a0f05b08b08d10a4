import * as z from 'zod';
import { ServiceSchema } from '@/core/form/service';
import { answer, readBody } from '@/server/routes/request';
import { task } from '@/server/machines/tasks';
import { readHead, readTables } from '@/server/content/read';

/** Checks the scripts of a service as they are on its page, even unsaved. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { service } = await readBody(request, z.strictObject({ service: ServiceSchema }));
    const [{ roles }, tables] = await Promise.all([readHead(), readTables()]);
    return Response.json(await task('checkService', { service, tables, roles }));
  });
}
