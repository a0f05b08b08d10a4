import { takeBack } from '@/server/releases/accepted';
import { answer } from '@/server/routes/request';

type Context = { params: Promise<{ form: string; key: string }> };

/** Takes back that a difference was accepted. */
export async function DELETE(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, key } = await params;
    await takeBack(form, key);
    return Response.json({});
  });
}
