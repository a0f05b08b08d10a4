import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { sharedScript } from '@/server/content/behaviours';
import { renameExport } from '@/server/content/structure';
import { BEHAVIOUR_CHARACTERS } from '@/core/limits';

const Body = z.strictObject({
  position: z.int().min(0).max(BEHAVIOUR_CHARACTERS),
  to: z.string().max(200),
  apply: z.boolean(),
});

/** Renames what a shared module exports, by a place that names it, in every script; or says what that would change. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ folder: string; file: string }> },
) {
  return answer(request, async () => {
    const { folder, file } = await params;
    const { position, to, apply } = await readBody(request, Body);
    const { name } = sharedScript(folder, file);
    return Response.json(
      await renameExport(name, position, to, apply, (await currentPerson()).key),
    );
  });
}
