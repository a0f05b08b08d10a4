import * as z from 'zod';
import { behaviourName } from '@/server/names';
import { answer, readBody, Refusal } from '@/server/request';
import { readForm, removeBehaviour, saveBehaviour } from '@/server/store';

const Body = z.strictObject({ text: z.string().max(500_000), from: z.number().int().min(0) });

interface Context {
  params: Promise<{ form: string; name: string }>;
}

/** Saves a behaviour as a new revision; 409 with the other text when somebody else saved it meanwhile. */
export async function PUT(request: Request, { params }: Context) {
  return answer(async () => {
    const { form, name } = await params;
    const { text, from } = await readBody(request, Body);
    behaviourName(name);
    if ((await readForm(form)) === null) throw new Refusal(404, `There is no form "${form}".`);
    const result = await saveBehaviour(form, name, text, from);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

/** Takes a behaviour away; its revisions stay. */
export async function DELETE(_request: Request, { params }: Context) {
  return answer(async () => {
    const { form, name } = await params;
    await removeBehaviour(form, behaviourName(name));
    return Response.json({});
  });
}
