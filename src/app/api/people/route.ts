import * as z from 'zod';
import { HeadSchema, saveHead } from '@/server/reference';
import { answer, readBody } from '@/server/request';

const Saving = z.strictObject({ head: HeadSchema, from: z.number().int().min(1) });

/** Saves the workspace's title, roles and people. */
export async function PUT(request: Request) {
  return answer(async () => {
    const { head, from } = await readBody(request, Saving);
    const result = await saveHead(head, from);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
