import { behaviourName } from '@/server/names';
import { answer } from '@/server/request';
import { readRevisions } from '@/server/store';

/** Every text a behaviour has had, the newest first. */
export async function GET(_request: Request, { params }: { params: Promise<{ form: string; name: string }> }) {
  return answer(async () => {
    const { form, name } = await params;
    return Response.json(await readRevisions(form, behaviourName(name)));
  });
}
