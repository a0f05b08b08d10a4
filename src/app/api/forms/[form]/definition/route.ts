import * as z from 'zod';
import { FormSchema } from '@/core/form/definition';
import { flawsOf } from '@/core/form/integrity';
import { answer, readBody, Refusal } from '@/server/request';
import { readTables, saveDefinition } from '@/server/store';

const Saving = z.strictObject({ form: FormSchema, from: z.number().int().min(0) });

/** Saves the structure of a form, unless somebody else has saved another meanwhile. */
export async function PUT(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(async () => {
    const { form: name } = await params;
    const { form, from } = await readBody(request, Saving);
    if (form.name !== name) throw new Refusal(400, `This is the definition of "${form.name}", not of "${name}".`);
    const [flaw] = flawsOf(form, await readTables());
    if (flaw !== undefined) throw new Refusal(422, `${flaw.path.join('.')}: ${flaw.says}`);
    const result = await saveDefinition(form, from);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
