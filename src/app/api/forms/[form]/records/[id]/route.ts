import { Refusal } from '@/server/http/refusal';
import { Removing } from '@/server/http/removing';
import { answer, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { readRecord } from '@/server/records/read';
import { removeRecord } from '@/server/records/save';

interface Context {
  params: Promise<{ form: string; id: string }>;
}

/** A record as it is saved. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, id } = await params;
    const record = await readRecord(form, id);
    if (record === null) throw new Refusal(404, `There is no record ${id.slice(0, 60)}.`);
    return Response.json(record);
  });
}

/** Removes a record as it was seen; its revisions stay. */
export async function DELETE(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form, id } = await params;
    const { from } = readQuery(request, Removing);
    const { key } = await currentPerson();
    const result = await removeRecord({ form, id }, from, key);
    if (!result.saved && result.theirs.revision > 0)
      throw new Refusal(409, 'Somebody else saved this record meanwhile. Reload to see it.');
    return Response.json({});
  });
}
