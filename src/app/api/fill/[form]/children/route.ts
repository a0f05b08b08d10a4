import * as z from 'zod';
import { Refusal } from '@/server/http/refusal';
import { answer, readQuery } from '@/server/routes/request';
import { childrenOf } from '@/server/records/read';
import { readForm } from '@/server/content/read';

const Query = z.strictObject({ record: z.string().min(1).max(200) });

/** The records that refer to one of this form's, list by list. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form: name } = await params;
    const { record } = readQuery(request, Query);
    const form = await readForm(name);
    if (form === null) throw new Refusal(404, `There is no form "${name}".`);
    return Response.json(await childrenOf(form, record));
  });
}
