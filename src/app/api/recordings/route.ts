import * as z from 'zod';
import { RECORDING_BYTES } from '@/core/limits';
import { RecordingSchema } from '@/core/scenario/recording';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { bringIn, listRecordings } from '@/server/releases/recordings';
import { readForm } from '@/server/content/read';

const Wanted = z.strictObject({
  form: z.string().max(200).optional(),
  record: z.string().max(200).optional(),
});

/** The newest recordings; of one form, or of one record of it. */
export async function GET(request: Request) {
  return answer(request, async () =>
    Response.json(await listRecordings(readQuery(request, Wanted))),
  );
}

/** Keeps a recording that comes as a file. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const recording = await readBody(request, RecordingSchema, RECORDING_BYTES);
    if ((await readForm(recording.form)) === null)
      throw new Refusal(
        422,
        `The recording is of the form "${recording.form}", which is not here.`,
      );
    const id = await bringIn(recording, await currentPerson());
    return Response.json({ recording: id, form: recording.form }, { status: 201 });
  });
}
