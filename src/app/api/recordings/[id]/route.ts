import { Refusal } from '@/server/http/refusal';
import * as z from 'zod';
import { answer, readQuery } from '@/server/routes/request';
import { idOf, readRecording, removeRecording } from '@/server/releases/recordings';

type Props = { params: Promise<{ id: string }> };

const NONE = 'There is no such recording.';

/** A recording as a file (docs/schemas/recording.schema.json). */
export async function GET(request: Request, { params }: Props) {
  return answer(request, async () => {
    const id = idOf((await params).id);
    const recording = id === null ? null : await readRecording(id);
    if (recording === null) throw new Refusal(404, NONE);
    return new Response(`${JSON.stringify(recording, null, 2)}\n`, {
      headers: {
        'content-type': 'application/json',
        'content-disposition': `attachment; filename="${recording.form}-recording-${id}.json"`,
      },
    });
  });
}

const Removed = z.strictObject({ form: z.string().min(1).max(200) });

/** Removes a recording of the form named: who removes one has seen what it is of. */
export async function DELETE(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { form } = readQuery(request, Removed);
    const id = idOf((await params).id);
    if (id === null || !(await removeRecording(id, form))) throw new Refusal(404, NONE);
    return Response.json({});
  });
}
