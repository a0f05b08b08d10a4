import * as z from 'zod';
import { ScenarioSchema } from '@/core/scenario/definition';
import { isScenarioName } from '@/core/scenario/naming';
import { Refusal } from '@/server/http/refusal';
import { Removing } from '@/server/http/removing';
import { answer, readBody, readQuery } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { removeScenario, saveScenario } from '@/server/content/scenarios';
import { Revision } from '@/server/http/numbers';

const Body = z.strictObject({ scenario: ScenarioSchema, from: Revision });

/** Saves a scenario made from revision `from`, 0 for one that was removed and is brought back. */
export async function PUT(
  request: Request,
  { params }: { params: Promise<{ form: string; name: string }> },
) {
  return answer(request, async () => {
    const { form, name } = await params;
    const { scenario, from } = await readBody(request, Body);
    if (!isScenarioName(name))
      throw new Refusal(
        400,
        'A scenario is named with lower-case letters, digits, - and _, at most 80 characters.',
      );
    const result = await saveScenario(form, name, scenario, from, (await currentPerson()).key);
    return Response.json(result, { status: result.saved ? 200 : 409 });
  });
}

/** Removes a scenario as it was seen. */
export async function DELETE(
  request: Request,
  { params }: { params: Promise<{ form: string; name: string }> },
) {
  return answer(request, async () => {
    const { form, name } = await params;
    await removeScenario(
      form,
      name,
      readQuery(request, Removing).from,
      (await currentPerson()).key,
    );
    return new Response(null, { status: 204 });
  });
}
