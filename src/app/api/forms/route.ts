import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { addForm } from '@/server/content/forms';
import { addFormFrom, FormSource } from '@/server/content/interchange';
import { Title } from '@/server/http/title';

const NewForm = z.strictObject({
  title: Title,
  /** A JSON Schema or a page that it is made from. */
  from: FormSource.optional(),
});

/** Begins a form. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { title, from } = await readBody(request, NewForm);
    const by = (await currentPerson()).key;
    const name = from === undefined ? await addForm(title, by) : await addFormFrom(from, title, by);
    return Response.json({ name }, { status: 201 });
  });
}
