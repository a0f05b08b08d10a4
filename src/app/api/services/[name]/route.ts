import * as z from 'zod';
import { ServiceSchema } from '@/core/form/service';
import { Refusal } from '@/server/http/refusal';
import { Removing } from '@/server/http/removing';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { removeService, saveService } from '@/server/content/reference-data';
import { Revision } from '@/server/http/numbers';

type Props = { params: Promise<{ name: string }> };

const Saving = z.strictObject({ service: ServiceSchema, from: Revision });

/** Saves a service, unless somebody else has saved it meanwhile. */
export async function PUT(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { name } = await params;
    const { service, from } = await readBody(request, Saving);
    if (service.name !== name)
      throw new Refusal(400, `This is the service "${service.name}", not "${name}".`);
    const result = await saveService(service, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

/** Removes a service as it was seen. */
export async function DELETE(request: Request, { params }: Props) {
  return answer(request, async () => {
    const { from } = readQuery(request, Removing);
    await removeService((await params).name, from, (await currentPerson()).key);
    return Response.json({});
  });
}
