import * as z from 'zod';
import { answer, readBodyIfAny, readQuery } from '@/server/routes/request';
import { scriptName } from '@/server/content/behaviours';
import { forgetChecks, workspaceProblems } from '@/server/content/problems';

/** Real milliseconds after which what was found so far is answered. */
const PATIENCE = 1500;

const Query = z.strictObject({ script: z.string().max(200).optional() });

/** Everything that is wrong in the workspace, or in the forms that use a shared `script`; 202 while some forms are still being checked. */
export async function GET(request: Request) {
  return answer(request, async () => {
    const { script } = readQuery(request, Query);
    const { over, ...checking } = await workspaceProblems(
      PATIENCE,
      script === undefined ? null : scriptName(script),
    );
    return Response.json(checking, { status: over ? 200 : 202 });
  });
}

/** Lets everything be checked anew by whoever asks next. */
export async function POST(request: Request) {
  return answer(request, async () => {
    await readBodyIfAny(request, z.strictObject({}));
    forgetChecks();
    return Response.json({}, { status: 202 });
  });
}
