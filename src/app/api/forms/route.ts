import * as z from 'zod';
import { answer, readBody } from '@/server/http/request';
import { currentPerson } from '@/server/person';
import { addForm } from '@/server/workspace/forms';

const NewForm = z.strictObject({ title: z.string().trim().min(1).max(120) });

/** Begins a form. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { title } = await readBody(request, NewForm);
    return Response.json(
      { name: await addForm(title, (await currentPerson()).key) },
      { status: 201 },
    );
  });
}
