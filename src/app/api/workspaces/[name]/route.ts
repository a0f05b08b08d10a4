import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { archiveWorkspace, removeWorkspace, renameWorkspace } from '@/server/hosting/manage';
import { Title } from '@/server/http/title';

interface Props {
  params: Promise<{ name: string }>;
}

const Changing = z.union([
  z.strictObject({ title: Title }),
  z.strictObject({ archived: z.boolean() }),
]);

/** Gives a workspace another title, or puts it into the archive or back. */
export async function PUT(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { name } = await params;
    const changing = await readBody(request, Changing);
    if ('title' in changing) await renameWorkspace(name, changing.title);
    else await archiveWorkspace(name, changing.archived);
    return Response.json({});
  });
}

/** Removes a workspace; it can be restored. */
export async function DELETE(request: Request, { params }: Props) {
  return answer(request, async () => {
    await removeWorkspace((await params).name);
    return Response.json({});
  });
}
