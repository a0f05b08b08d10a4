import { answer } from '@/server/http/request';
import { workspaceProblems } from '@/server/workspace/problems';

/** Real milliseconds after which what was found so far is answered. */
const PATIENCE = 1500;

/** Everything that is wrong in the workspace; 202 while some forms are still being checked. */
export async function GET(request: Request) {
  return answer(request, async () => {
    const checking = await workspaceProblems(PATIENCE);
    return Response.json(checking, {
      status: checking.done < checking.of || checking.of === 0 ? 202 : 200,
    });
  });
}
