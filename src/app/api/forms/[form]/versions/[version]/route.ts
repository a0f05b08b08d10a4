import { VersionName } from '@/core/workspace/versions';
import { Refusal } from '@/server/http/refusal';
import { formerVersion } from '@/server/releases/versions';
import { answer } from '@/server/routes/request';

type Context = { params: Promise<{ form: string; version: string }> };

/** The form as it was released (`release-3`) or as it was at some moment (`at-2031-05-02T09:00:00Z`). */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, version } = await params;
    const which = VersionName.safeParse(decodeURIComponent(version));
    if (!which.success) throw new Refusal(404, 'There is no such version.');
    return Response.json(await formerVersion(form, which.data));
  });
}
