import * as z from 'zod';
import { SCENARIOS_PER_FORM } from '@/core/limits';
import { Refusal } from '@/server/http/refusal';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { stateOf } from '@/server/content/overview';
import { takeOver } from '@/server/content/problems';
import { addPastRun, keepScenarioRun, pastRuns } from '@/server/content/scenarios';

type Context = { params: Promise<{ form: string }> };

const Run = z.strictObject({
  passed: z.int().min(0).max(SCENARIOS_PER_FORM),
  failed: z.int().min(0).max(SCENARIOS_PER_FORM),
  /** Titles of those that failed. */
  failing: z.array(z.string().max(1000)).max(SCENARIOS_PER_FORM).default([]),
  /** Statements reached, in percent. */
  coverage: z.int().min(0).max(100).optional(),
});

/** The last runs, the newest first. */
export async function GET(request: Request, { params }: Context) {
  return answer(request, async () => Response.json(await pastRuns((await params).form)));
}

/** Keeps how the scenarios came out on a bench on which everything is saved. */
export async function PUT(request: Request, { params }: Context) {
  return answer(request, async () => {
    const { form } = await params;
    const { failing, ...run } = await readBody(request, Run);
    const of = await stateOf(form);
    if (of === null) throw new Refusal(404, `There is no form "${form}".`);
    await keepScenarioRun(form, { ...run, of });
    takeOver(form, run);
    const { passed, failed } = run;
    await addPastRun(form, { passed, failed, failing }, (await currentPerson()).key);
    return Response.json({});
  });
}
