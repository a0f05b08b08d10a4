import { ZIP_BYTES } from '@/core/limits';
import { answer, readBytes } from '@/server/routes/request';
import { workspaceFromZip } from '@/server/hosting/from-zip';

/** Makes a workspace from a zip of a folder. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const name = await workspaceFromZip(await readBytes(request, ZIP_BYTES));
    return Response.json({ name }, { status: 201 });
  });
}
