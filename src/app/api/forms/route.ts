import * as z from 'zod';
import { answer, readBody } from '@/server/http/request';
import { currentPerson } from '@/server/person';
import { addForm } from '@/server/workspace/forms';
import { Title } from '@/server/title';

const NewForm = z.strictObject({ title: Title });

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
