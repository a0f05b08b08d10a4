import { answer, readBody } from '@/server/routes/request';
import { FormSource, takenFrom } from '@/server/content/interchange';

/** What form a JSON Schema or a page with an HTML form would become; nothing is made. */
export async function POST(request: Request) {
  return answer(request, async () =>
    Response.json(await takenFrom(await readBody(request, FormSource))),
  );
}
