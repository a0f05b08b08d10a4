import { versionsOf } from '@/server/releases/versions';
import { answer } from '@/server/routes/request';

type Context = { params: Promise<{ form: string }> };

/** Releases and revisions that the form can be compared with, the newest first. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => Response.json(await versionsOf((await params).form)));
}
