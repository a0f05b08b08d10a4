import { answer, Refusal } from '@/server/request';
import { childrenOf, readForm } from '@/server/store';

/** The records that refer to one of this form's, list by list, after one was added. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(async () => {
    const form = await readForm((await params).form);
    const record = new URL(request.url).searchParams.get('record');
    if (form === null || record === null) throw new Refusal(404, 'Say which record of which form.');
    return Response.json(await childrenOf(form, record));
  });
}
