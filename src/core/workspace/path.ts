/** Which files belong to a workspace; anything else in its folder is not looked at. */
const WANTED =
  /^(?:workspace\.json|tables\/[^/]+\.(?:json|csv)|services\/[^/]+\.json|forms\/[^/]+\/(?:form\.json|records\.json|behaviours\/[^/]+\.[jt]s|scenarios\/[^/]+\.json)|behaviours\/[^/]+\.[jt]s|shared\/[^/]+\.ts)$/;

/** Whether a path below a workspace's folder, with `/` between its parts, is one of its files. */
export function isWorkspaceFile(path: string): boolean {
  return WANTED.test(path);
}
