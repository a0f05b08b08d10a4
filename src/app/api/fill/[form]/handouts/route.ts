import * as z from 'zod';
import { ValuesSchema } from '@/core/session/schema';
import { CannotOpen, handOut, ownFilling, parentOf } from '@/server/fillings/handing-out';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { readRecord } from '@/server/records/read';
import { newestRelease } from '@/server/releases/releases';
import { readForm } from '@/server/content/read';

const Wanted = z.strictObject({
  record: z.string().max(200).optional(),
  launch: ValuesSchema.optional(),
  parent: z
    .strictObject({ form: z.string().max(200), filling: z.uuid() })
    .optional()
    .describe('The filling-in this form is opened from.'),
});

/** Hands a form out that is opened from another one. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form: name } = await params;
    const { record: id, launch = {}, parent } = await readBody(request, Wanted);
    const [form, release, person] = await Promise.all([
      readForm(name),
      newestRelease(name),
      currentPerson(),
    ]);
    if (form === null) throw new Refusal(404, `There is no form "${name}".`);
    if (release === null)
      throw new Refusal(409, `${form.title} has no release yet, so it cannot be filled in.`);
    const record = id === undefined ? null : await readRecord(name, id);
    if (id !== undefined && record === null) throw new Refusal(404, `There is no record ${id}.`);
    if (parent !== undefined) {
      await ownFilling(parent.form, parent.filling, person);
      if ((await parentOf(parent.filling)) === null)
        throw new Refusal(409, 'Save this record first: what is added here refers to it.');
    }
    const handout = await handOut(release, person, record, {
      launch,
      parent: parent?.filling ?? null,
    }).catch((caught: unknown) => {
      throw caught instanceof CannotOpen ? new Refusal(422, caught.message) : caught;
    });
    return Response.json(
      {
        number: release.number,
        material: release.material,
        handout,
        recordRevision: record?.revision ?? null,
      },
      { status: 201 },
    );
  });
}
