/** Addresses of workspaces: `/w/NAME/…` names one, the root addresses are those of the first. */

/** The header in which src/proxy.ts says which workspace an address names; none for the root addresses. */
export const WORKSPACE_HEADER = 'x-tavro-workspace';

/** `/w/NAME/…` as the name and the address below it; the root addresses are those of the first workspace. */
export function splitAddress(pathname: string): { workspace: string | null; path: string } {
  const [, workspace, path = ''] = /^\/w\/([a-z0-9][a-z0-9-]{0,59})(\/.*)?$/.exec(pathname) ?? [];
  return workspace === undefined
    ? { workspace: null, path: pathname }
    : { workspace, path: path === '' ? '/' : path };
}
