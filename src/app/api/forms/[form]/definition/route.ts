import * as z from 'zod';
import { FormSchema } from '@/core/form/definition';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { saveDefinition } from '@/server/content/forms';
import { OfRevision } from '@/server/http/numbers';

const Saving = z.strictObject({ form: FormSchema, from: OfRevision });

/** Saves the structure of a form, unless somebody else has saved another meanwhile. */
export async function PUT(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form: name } = await params;
    const { form, from } = await readBody(request, Saving);
    if (form.name !== name)
      throw new Refusal(400, `This is the definition of "${form.name}", not of "${name}".`);
    const result = await saveDefinition(form, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
