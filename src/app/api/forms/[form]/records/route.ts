import * as z from 'zod';
import { Refusal } from '@/server/http/refusal';
import { ValuesSchema } from '@/core/session/schema';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { listRecords, type ListQuery } from '@/server/records/list';
import { addSample } from '@/server/fillings/samples';
import { existingForm } from '@/server/content/forms';

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
    const form = await existingForm(name);
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

const Sample = z.strictObject({ values: ValuesSchema });

/** Keeps a sample record, as long as the form has no release. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { values } = await readBody(request, Sample);
    const by = (await currentPerson()).key;
    return Response.json(await addSample((await params).form, values, by), { status: 201 });
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
