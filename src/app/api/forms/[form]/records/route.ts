import * as z from 'zod';
import { Refusal } from '@/server/http/refusal';
import { answer, readQuery } from '@/server/http/request';
import { listRecords, type ListQuery } from '@/server/records/list';
import { readForm } from '@/server/workspace/read';

const text = z.string().max(200);

/** `is.FIELD`, `from.FIELD` and `to.FIELD` narrow down by a column. */
const Query = z
  .object({
    search: text.optional(),
    sort: text.optional(),
    after: z.string().max(1000).optional(),
  })
  .catchall(text);

/** A page of the records of a form. */
export async function GET(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form: name } = await params;
    const { search, sort, after, ...others } = readQuery(request, Query);
    const form = await readForm(name);
    if (form === null) throw new Refusal(404, `There is no form "${name}".`);
    return Response.json(
      await listRecords(form, {
        ...(search === undefined ? {} : { search }),
        ...(sort === undefined ? {} : { sort }),
        ...(after === undefined ? {} : { after }),
        narrowed: narrowedBy(others),
      }),
    );
  });
}

function narrowedBy(query: Record<string, unknown>): ListQuery['narrowed'] {
  const fields = new Map<string, ListQuery['narrowed'][number]>();
  for (const [key, value] of Object.entries(query)) {
    const [, how, field] = /^(is|from|to)\.([a-z][a-z0-9_]*)$/.exec(key) ?? [];
    if (how === undefined || field === undefined)
      throw new Refusal(400, `The list of records knows nothing of "${key.slice(0, 60)}".`);
    fields.set(field, { ...(fields.get(field) ?? { field }), [how]: value as string });
  }
  return [...fields.values()];
}
