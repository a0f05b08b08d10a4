import { BEHAVIOUR_CHARACTERS } from '@/core/limits';
import * as z from 'zod';
import { Removing } from '@/server/http/removing';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { removeScript, saveScript, sharedScript } from '@/server/content/behaviours';
import { Revision } from '@/server/http/numbers';

const Body = z.strictObject({
  text: z.string().max(BEHAVIOUR_CHARACTERS),
  from: Revision,
});

interface Context {
  params: Promise<{ folder: string; file: string }>;
}

/** Saves a shared module or a behaviour for several forms; 409 with the other text when somebody else saved it meanwhile. */
export async function PUT(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { folder, file } = await params;
    const { text, from } = await readBody(request, Body);
    const key = sharedScript(folder, file);
    const result = await saveScript(key, text, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

/** Removes it as it was seen; its revisions stay. */
export async function DELETE(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { folder, file } = await params;
    const { from } = readQuery(request, Removing);
    const result = await removeScript(
      sharedScript(folder, file),
      from,
      (await currentPerson()).key,
    );
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
