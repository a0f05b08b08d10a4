import { answer } from '@/server/routes/request';
import { Refusal } from '@/server/http/refusal';
import { currentPerson } from '@/server/routes/person';
import { undoTaking } from '@/server/workspaces/taking';

/** Undoes what was taken in one go. */
export async function DELETE(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answer(request, async () => {
    const { id } = await params;
    if (!/^\d{1,9}$/.test(id)) throw new Refusal(404, 'There is nothing of that to undo.');
    await undoTaking(Number(id), (await currentPerson()).key);
    return Response.json({});
  });
}
