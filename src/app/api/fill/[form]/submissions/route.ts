import { submit, SubmissionSchema } from '@/server/fillings/submitting';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';

/** Does a submission again on the server and saves what came out. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const submission = await readBody(request, SubmissionSchema);
    const result = await submit(form, submission, await currentPerson());
    return Response.json(result, { status: result.status });
  });
}
