import { ScenarioSchema } from '@/core/scenario/definition';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { addScenario } from '@/server/content/scenarios';

/** Keeps a new scenario. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const scenario = await readBody(request, ScenarioSchema);
    return Response.json(
      await addScenario((await params).form, scenario, (await currentPerson()).key),
      { status: 201 },
    );
  });
}
