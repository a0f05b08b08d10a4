import { BEHAVIOUR_CHARACTERS } from '@/core/limits';
import * as z from 'zod';
import { Removing } from '@/server/http/removing';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { ownScript, removeScript, saveScript } from '@/server/content/behaviours';
import { needForm } from '@/server/content/forms';
import { Revision } from '@/server/http/numbers';

const Body = z.strictObject({
  text: z.string().max(BEHAVIOUR_CHARACTERS),
  from: Revision,
});

interface Context {
  params: Promise<{ form: string; name: string }>;
}

/** Saves a behaviour as a new revision; 409 with the other text when somebody else saved it meanwhile. */
export async function PUT(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, name } = await params;
    const { text, from } = await readBody(request, Body);
    await needForm(form);
    const result = await saveScript(ownScript(form, name), text, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

/** Removes a behaviour as it was seen; its revisions stay. */
export async function DELETE(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, name } = await params;
    const result = await removeScript(
      ownScript(form, name),
      readQuery(request, Removing).from,
      (await currentPerson()).key,
    );
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
