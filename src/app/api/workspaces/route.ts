import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { Title } from '@/server/http/title';
import { addWorkspace, copyWorkspace } from '@/server/hosting/manage';

const Making = z.union([
  /** Empty, or with one form of this title to begin with. */
  z.strictObject({ title: Title, form: Title.nullable() }),
  z.strictObject({ title: Title, copyOf: z.string().max(60) }),
]);

/** Makes a workspace, or copies one. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const making = await readBody(request, Making);
    const name =
      'copyOf' in making
        ? await copyWorkspace(making.copyOf, making.title)
        : await addWorkspace(making.title, making.form);
    return Response.json({ name }, { status: 201 });
  });
}
