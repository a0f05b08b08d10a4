import * as z from 'zod';
import { ServiceSchema } from '@/core/form/service';
import { readGiven } from '@/core/form/service-call';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody } from '@/server/routes/request';
import { readHead } from '@/server/content/read';
import { tryService } from '@/server/content/try-service';

const Trial = z.strictObject({
  service: ServiceSchema,
  called: z.string(),
  /** As typed, by parameter. */
  given: z.record(z.string(), z.string()),
});

/** Calls a function of a service as its page has it, saved or not. */
export async function POST(request: Request) {
  return answer(request, async () => {
    const { service, called, given } = await readBody(request, Trial);
    const made = Object.hasOwn(service.functions, called) ? service.functions[called] : undefined;
    if (made === undefined) throw new Refusal(404, `The service has no function "${called}".`);
    const read = readGiven(made.parameters, given, (await readHead()).numbers);
    if ('says' in read) throw new Refusal(400, read.says);
    return Response.json(await tryService(service, called, read.values));
  });
}
