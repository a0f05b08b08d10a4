import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { choosePerson } from '@/server/routes/person';

const Chosen = z.strictObject({ key: z.string().max(100) });

/** Chooses who is using the app. */
export async function POST(request: Request) {
  return answer(request, async () => {
    await choosePerson((await readBody(request, Chosen)).key);
    return new Response(null, { status: 204 });
  });
}
