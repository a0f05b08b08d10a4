import { CHOSEN_FILE_BYTES } from '@/core/limits';
import * as z from 'zod';
import { fileFields, keepFile, readFile } from '@/server/fillings/files';
import { ownFilling } from '@/server/fillings/handing-out';
import { Refusal } from '@/server/http/refusal';
import { answer, readBytes, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { readRecord } from '@/server/records/read';
import { readForm } from '@/server/content/read';

type Props = { params: Promise<{ form: string }> };

const Kept = z.strictObject({
  filling: z.uuid(),
  field: z.string().min(1).max(200),
  name: z.string().min(1).max(255),
  type: z.string().max(200),
});
const Wanted = z.strictObject({
  record: z.string().min(1).max(200),
  field: z.string().min(1).max(200),
  name: z.string().min(1).max(255),
  digest: z.string().length(64).optional(),
});

/** Keeps the content of a file that was chosen, for a field of the filling-in named. */
export async function POST(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { form } = await params;
    const { filling: id, field, name, type } = readQuery(request, Kept);
    if (request.headers.get('content-type') !== 'application/octet-stream')
      throw new Refusal(
        415,
        'The body has to be the content of the file: say so with content-type: application/octet-stream.',
      );
    const filling = await ownFilling(form, id, await currentPerson());
    if (!fileFields(filling.release.material.form).includes(field))
      throw new Refusal(422, `The form has no field "${field}" that holds files.`);
    const content = await readBytes(request, CHOSEN_FILE_BYTES);
    return Response.json(
      await keepFile({ id, savedAs: filling.savedAs, form }, field, { name, type }, content),
      { status: 201 },
    );
  });
}

/** The content of a file that a record names. */
export async function GET(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { form: formName } = await params;
    const { record: id, field, name, digest } = readQuery(request, Wanted);
    const [form, record] = await Promise.all([
      readForm(formName),
      readRecord(formName, id),
      currentPerson(),
    ]);
    const content =
      form === null || record === null ? null : await readFile(form, record, field, name, digest);
    if (content === null) throw new Refusal(404, 'There is no such file.');
    // Always saved, never shown: what people hand in must not run in this place.
    const headers = {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    };
    return new Response(new Uint8Array(content), { headers });
  });
}
