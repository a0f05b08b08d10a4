import * as z from 'zod';
import { RECORDS_AT_ONCE } from '@/core/limits';
import { ValuesSchema } from '@/core/session/schema';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { enterRecords } from '@/server/fillings/bring';
import { needForm } from '@/server/content/forms';
import { LARGEST_INTEGER } from '@/core/limits';

const Body = z.strictObject({
  records: z
    .array(
      z.strictObject({
        line: z.int().min(1).max(LARGEST_INTEGER),
        id: z.string().min(1).max(60).nullable(),
        values: ValuesSchema,
      }),
    )
    .min(1)
    .max(RECORDS_AT_ONCE),
});

/** Enters some records as by hand; each is saved or refused by itself. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const { records } = await readBody(request, Body);
    await needForm(form);
    return Response.json(await enterRecords(form, records, await currentPerson()));
  });
}
