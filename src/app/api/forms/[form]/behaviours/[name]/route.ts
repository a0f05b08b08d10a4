import { z } from 'zod';
import { answer, readBody, Refusal } from '@/server/request';
import { readForm, saveBehaviour } from '@/server/store';

const Body = z.strictObject({ text: z.string().max(500_000), from: z.number().int().min(0) });
const FileName = z.string().regex(/^[a-z0-9][a-z0-9_-]*\.(ts|js)$/, 'a behaviour is a file such as 10-pilot.ts').max(80);

/** Saves a behaviour as a new revision; 409 with the other text when somebody else saved it meanwhile. */
export async function PUT(request: Request, { params }: { params: Promise<{ form: string; name: string }> }) {
  return answer(async () => {
    const { form, name } = await params;
    const { text, from } = await readBody(request, Body);
    if (!FileName.safeParse(name).success) throw new Refusal(400, 'A behaviour is named like 10-pilot.ts.');
    if ((await readForm(form)) === null) throw new Refusal(404, `There is no form "${form}".`);
    const result = await saveBehaviour(form, name, text, from);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}
