import { ScenarioSchema } from '@/core/scenario/definition';
import { unknownNames } from '@/core/scenario/run';
import { answer, readBody, Refusal } from '@/server/request';
import { addScenario, readForm } from '@/server/store';

export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(async () => {
    const { form: name } = await params;
    const scenario = await readBody(request, ScenarioSchema);
    const form = await readForm(name);
    if (form === null) throw new Refusal(404, `There is no form "${name}".`);
    const [unknown] = unknownNames(scenario, form);
    if (unknown !== undefined) throw new Refusal(400, `${unknown.path.join('.')}: ${unknown.says}.`);
    return Response.json(await addScenario(name, scenario), { status: 201 });
  });
}
