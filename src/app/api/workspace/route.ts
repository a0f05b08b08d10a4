import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { currentWorkspace } from '@/server/database/current-workspace';
import { packWorkspace } from '@/server/workspaces/folder';

const Wanted = z.strictObject({ records: z.literal('yes').optional() });

/** The workspace as a zip of its folder; with `records=yes` its newest records as well. */
export async function GET(request: Request) {
  return answer(request, async () => {
    const { records } = readQuery(request, Wanted);
    const { name } = currentWorkspace();
    const zip = await packWorkspace(name, records !== undefined);
    return new Response(Buffer.from(zip), {
      headers: {
        'content-type': 'application/zip',
        'content-disposition': `attachment; filename="${name}.zip"`,
      },
    });
  });
}
