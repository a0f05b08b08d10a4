import { Refusal } from '@/server/http/refusal';
import { answer } from '@/server/routes/request';
import { idOf } from '@/server/releases/recordings';
import { stopSearch } from '@/server/searches/searches';

/** Ends a search; what it has found stays. */
export async function DELETE(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const id = idOf((await params).id);
    if (id === null) throw new Refusal(404, 'There is no such search.');
    await stopSearch(id);
    return Response.json({});
  });
}
