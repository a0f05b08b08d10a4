import * as z from 'zod';
import { STEPS_PER_SESSION } from '@/core/limits';
import { TimedStepSchema, ValuesSchema } from '@/core/session/schema';
import { ownFilling } from '@/server/fillings/handing-out';
import { answer, readBody } from '@/server/routes/request';
import { currentPerson } from '@/server/routes/person';
import { keepForPerson } from '@/server/releases/recordings';

const Wanted = z.strictObject({
  filling: z.uuid(),
  steps: z.array(TimedStepSchema).max(STEPS_PER_SESSION),
  ended: ValuesSchema.nullable(),
  says: z.string().max(2000),
  masks: z.boolean(),
});

/** Keeps a filling-in as it stands, to be looked into. */
export async function POST(request: Request, { params }: { params: Promise<{ form: string }> }) {
  return answer(request, async () => {
    const { form } = await params;
    const { filling: id, steps, ended, says, masks } = await readBody(request, Wanted);
    const person = await currentPerson();
    const { release, opening } = await ownFilling(form, id, person);
    const number = await keepForPerson(
      { filling: id, release, opening, steps, ended },
      { says, masks },
      person,
    );
    return Response.json({ recording: number }, { status: 201 });
  });
}
