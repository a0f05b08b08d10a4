import * as z from 'zod';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { Removing } from '@/server/http/removing';
import { currentPerson } from '@/server/routes/person';
import { removeForm, renameForm } from '@/server/content/forms';
import { Title } from '@/server/http/title';

type Props = { params: Promise<{ form: string }> };

const Renaming = z.strictObject({ title: Title });

/** Gives a form another title. */
export async function PUT(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { title } = await readBody(request, Renaming);
    await renameForm((await params).form, title, (await currentPerson()).key);
    return Response.json({});
  });
}

/** Removes a form as it was seen; it can be restored. */
export async function DELETE(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { from } = readQuery(request, Removing);
    await removeForm((await params).form, from, (await currentPerson()).key);
    return Response.json({});
  });
}
