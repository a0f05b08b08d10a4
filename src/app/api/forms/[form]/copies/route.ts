import * as z from 'zod';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { copyForm } from '@/server/content/forms';
import { Title } from '@/server/http/title';

const Copying = z.strictObject({ title: Title });

/** Copies a form with its behaviours and scenarios. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { title } = await readBody(request, Copying);
    const name = await copyForm((await params).form, title, (await currentPerson()).key);
    return Response.json({ name }, { status: 201 });
  });
}
