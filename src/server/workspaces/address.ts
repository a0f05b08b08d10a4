/** Addresses of workspaces: `/w/NAME/…` names one, the root addresses are those of the first. */

/** The header in which src/proxy.ts says which workspace an address names; none for the root addresses. */
export const WORKSPACE_HEADER = 'x-tavro-workspace';

/** Whether a text can be the name of a workspace in addresses. */
export function isWorkspaceName(name: string): boolean {
  return /^[a-z0-9][a-z0-9-]{0,59}$/.test(name);
}

/**
 * `/w/NAME/…` as what stands for the name, decoded once, and the address below it. `workspace` is null for the root
 * addresses alone: whatever else stands behind `/w/` is given as it is, and is no workspace's name. Next.js takes `/W/`
 * and `/%77/` for `/w/`, so they are read like it, but name none.
 */
export function splitAddress(pathname: string): { workspace: string | null; path: string } {
  const [, first = '', name = '', path = ''] = /^\/+([^/]*)\/?([^/]*)(.*)$/.exec(pathname) ?? [];
  const prefix = decodedOnce(first);
  if (!/^w(?:$|\/)/i.test(prefix)) return { workspace: null, path: pathname };
  return {
    workspace: prefix === 'w' ? decodedOnce(name) : '',
    path: path === '' ? '/' : path,
  };
}

function decodedOnce(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
