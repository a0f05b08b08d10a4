import { answer } from '@/server/routes/request';
import { liveState } from '@/server/folders/current-revisions';

/** What of a form and around it is there now, by revisions, and how its folder stands: for a bench that is open. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => Response.json(await liveState((await params).form)));
}
