import * as z from 'zod';
import { closeFolder, offeredFolders, openFolder } from '@/server/hosting/open-folders';
import { answer, readBody, readQuery } from '@/server/routes/request';

const Opening = z.strictObject({ folder: z.string().min(1).max(1000) });
const Closing = z.strictObject({ workspace: z.string().max(60) });

/** Folders that can be opened as workspaces. */
export async function GET(request: Request) {
  return answer(request, async () => Response.json(await offeredFolders()));
}

/** Opens a folder; it and its workspace are kept the same from now on. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { folder } = await readBody(request, Opening);
    return Response.json({ name: await openFolder(folder) }, { status: 201 });
  });
}

/** Closes the folder of a workspace; both stay as they are. */
export async function DELETE(request: Request) {
  return answer(request, async () => {
    await closeFolder(readQuery(request, Closing).workspace);
    return Response.json({});
  });
}
