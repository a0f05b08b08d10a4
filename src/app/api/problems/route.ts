import { workspaceProblems } from '@/server/problems';
import { answer } from '@/server/request';

/** Everything that is wrong in the workspace. */
export async function GET() {
  return answer(async () => Response.json(await workspaceProblems()));
}
