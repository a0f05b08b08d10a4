import { keptAsRecording } from '@/server/fillings/kept';
import { Refusal } from '@/server/http/refusal';
import { idOf } from '@/server/releases/recordings';
import { currentPerson } from '@/server/routes/person';
import { answer } from '@/server/routes/request';

type Context = { params: Promise<{ form: string; id: string }> };

/** Makes a recording of a kept filling-in, once; gives its number. */
export async function POST(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, id } = await params;
    const number = idOf(id);
    if (number === null) throw new Refusal(404, 'There is no such filling-in.');
    const recording = await keptAsRecording(form, number, await currentPerson());
    return Response.json({ recording }, { status: 201 });
  });
}
