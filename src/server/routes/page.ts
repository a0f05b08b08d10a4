/** Pages in the workspace that their address names. */
import { headers } from 'next/headers';
import { notFound } from 'next/navigation';
import { isWorkspaceName, WORKSPACE_HEADER } from '../workspaces/address';
import { HOME, inWorkspace } from '../database/current-workspace';
import { findWorkspace } from '../workspaces/registry';

/** Makes a page, or what stands around it, in the workspace that the address names. Not found where there is none. */
export async function here<T>(work: () => Promise<T>): Promise<T> {
  const name = (await headers()).get(WORKSPACE_HEADER);
  if (name === null) return inWorkspace(HOME, work);
  const workspace = await findWorkspace(name);
  if (workspace === null) notFound();
  return inWorkspace(workspace, work);
}

/** What stands before every address of the workspace: nothing for the root addresses. */
export async function basePath(): Promise<string> {
  const name = (await headers()).get(WORKSPACE_HEADER);
  return name === null || !isWorkspaceName(name) ? '' : `/w/${name}`;
}
