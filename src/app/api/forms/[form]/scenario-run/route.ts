import * as z from 'zod';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody } from '@/server/http/request';
import { stateOf } from '@/server/workspace/overview';
import { keepScenarioRun } from '@/server/workspace/scenarios';

const Run = z.strictObject({ passed: z.number().int().min(0), failed: z.number().int().min(0) });

/** Keeps how the scenarios came out on a bench on which everything is saved. */
export async function PUT(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const run = await readBody(request, Run);
    const of = await stateOf(form);
    if (of === null) throw new Refusal(404, `There is no form "${form}".`);
    await keepScenarioRun(form, { ...run, of });
    return Response.json({});
  });
}
