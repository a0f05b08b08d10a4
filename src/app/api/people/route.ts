import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { HeadSchema, saveHead } from '@/server/content/reference-data';
import { readHead } from '@/server/content/read';
import { database } from '@/server/database/database';
import { tidyKept } from '@/server/fillings/kept';
import { OfRevision } from '@/server/http/numbers';

const Saving = z.strictObject({ head: HeadSchema, from: OfRevision });

/** Saves the workspace's title, roles, people and settings. What is kept of filling-ins is tidied where that setting changed. */
export async function PUT(request: Request) {
  return answer(request, async () => {
    const { head, from } = await readBody(request, Saving);
    const { fillings: before } = await readHead();
    const result = await saveHead(head, from, (await currentPerson()).key);
    if (result.saved && JSON.stringify(before) !== JSON.stringify(head.fillings))
      await tidyKept(database(), head.fillings);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
