import { cookies } from 'next/headers';
import * as z from 'zod';
import { answer, PERSON_COOKIE, readBody, Refusal } from '@/server/request';
import { readHead } from '@/server/store';

/** Chooses who is using the app. */
export async function POST(request: Request) {
  return answer(async () => {
    const { key } = await readBody(request, z.strictObject({ key: z.string() }));
    const { people } = await readHead();
    if (!people.some((person) => person.key === key)) throw new Refusal(404, `There is no person "${key}".`);
    (await cookies()).set(PERSON_COOKIE, key, { sameSite: 'lax', httpOnly: true, path: '/' });
    return new Response(null, { status: 204 });
  });
}
