import { Removing } from '@/server/http/removing';
import { answer, readQuery } from '@/server/http/request';
import { currentPerson } from '@/server/person';
import { removeScenario } from '@/server/workspace/scenarios';

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
