import * as z from 'zod';
import { MOST_BYTES } from '@/core/form/limits';
import { keepFile, readFile } from '@/server/files';
import { ownFilling } from '@/server/fillings';
import { answer, currentPerson, readBytes, Refusal } from '@/server/request';

type Props = { params: Promise<{ form: string }> };

const Kept = z.object({ filling: z.uuid(), name: z.string().min(1).max(255) });
const Wanted = z.object({ record: z.string().min(1), name: z.string().min(1) });

/** Keeps the content of a file that was chosen, for the filling-in named. */
export async function POST(request: Request, { params }: Props) {
  return answer(async () => {
    const { form } = await params;
    const query = Kept.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!query.success) throw new Refusal(400, 'Say which filling-in the file is for, and its name.');
    const { filling, name } = query.data;
    if (!(await ownFilling(form, filling, await currentPerson()))) throw new Refusal(404, 'This form was not handed out to you. Open it again.');
    const content = await readBytes(request, MOST_BYTES);
    const file = { name, size: content.length, type: request.headers.get('content-type') ?? '' };
    await keepFile(form, filling, file, content);
    return Response.json(file, { status: 201 });
  });
}

/** The content of a record's file. */
export async function GET(request: Request, { params }: Props) {
  return answer(async () => {
    const { form } = await params;
    const query = Wanted.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    const file = query.success ? await readFile(form, query.data.record, query.data.name) : null;
    if (file === null) throw new Refusal(404, 'There is no such file.');
    // Always saved, never shown: what people hand in must not run in this place.
    const headers = { 'content-type': 'application/octet-stream', 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(query.data!.name)}` };
    return new Response(new Uint8Array(file.content), { headers });
  });
}
