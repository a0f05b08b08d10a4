import * as z from 'zod';
import { ServiceSchema } from '@/core/form/service';
import { removeService, saveService } from '@/server/reference';
import { answer, readBody, Refusal } from '@/server/request';

type Props = { params: Promise<{ name: string }> };

const Saving = z.strictObject({ service: ServiceSchema, from: z.number().int().min(0) });

/** Saves a service, unless somebody else has saved it meanwhile. */
export async function PUT(request: Request, { params }: Props) {
  return answer(async () => {
    const { name } = await params;
    const { service, from } = await readBody(request, Saving);
    if (service.name !== name) throw new Refusal(400, `This is the service "${service.name}", not "${name}".`);
    const result = await saveService(service, from);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

export async function DELETE(_: Request, { params }: Props) {
  return answer(async () => {
    await removeService((await params).name);
    return Response.json({});
  });
}
