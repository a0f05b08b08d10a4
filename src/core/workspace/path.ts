/** Which files belong to a workspace; anything else in its folder is not looked at. */
const WANTED =
  /^(?:workspace\.json|tables\/[^/]+\.(?:json|csv)|services\/[^/]+\.json|forms\/[^/]+\/(?:form\.json|records\.json|behaviours\/[^/]+\.[jt]s|scenarios\/[^/]+\.json)|behaviours\/[^/]+\.[jt]s|shared\/[^/]+\.ts)$/;

/** The folders in which they stand. */
const PLACES =
  /^(?:tables|services|behaviours|shared|forms(?:\/[^/]+(?:\/(?:behaviours|scenarios))?)?)$/;

/** What nobody means as a part of a workspace: hidden files, and packages. */
const PASSED_OVER = /(?:^|\/)(?:\.[^/]*|node_modules)(?:$|\/)/;

/** Whether a path below a workspace's folder, with `/` between its parts, is one of its files. */
export function isWorkspaceFile(path: string): boolean {
  return WANTED.test(path);
}

/** Whether a path below a workspace's folder is a folder in which files of it can stand. */
export function isWorkspacePlace(path: string): boolean {
  return PLACES.test(path) && !PASSED_OVER.test(path);
}

/** Whether a path is passed over whatever stands there. */
export function isPassedOver(path: string): boolean {
  return PASSED_OVER.test(path);
}
