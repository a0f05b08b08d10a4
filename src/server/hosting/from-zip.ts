/** A zip as a workspace of its own. */
import { fillWorkspace } from '../workspaces/making';
import { madeFrom } from './manage';
import { readBrought } from '../workspaces/taking';

/** A new workspace from a zip. Its name in addresses. Throws a Refusal (422) that names what is wrong by file and line. */
export async function workspaceFromZip(bytes: Uint8Array): Promise<string> {
  const { workspace } = await readBrought({ zip: bytes });
  return madeFrom(workspace.title, () => fillWorkspace(workspace));
}
