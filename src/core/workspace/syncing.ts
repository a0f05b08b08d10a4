/**
 * Keeping a workspace and a live folder the same: what changed on one side goes to the other, what changed on both is a
 * conflict that is left as it is. Records go from the folder into the app alone, since a folder holds a few samples.
 */
import { reconcile, type Digests } from './reconcile';
import { digestsOf, savingsOf, type Saving } from './taking';
import { filesOfUnit, placeOfUnit, unitsIn } from './units';
import {
  fileErrorInWords,
  BrokenWorkspace,
  readWorkspace,
  type FilesRead,
  type Files,
  type Workspace,
} from './workspace';
import { writeWorkspace } from './write';

export interface Conflict {
  unit: string;
  /** What each side has; null where it has none. */
  app: string | null;
  folder: string | null;
}

export interface Sync {
  /** Documents of the app that change. */
  savings: Saving[];
  /** Files that change, with what stood there; a text that is null is a file that goes, or was not there. */
  writes: { path: string; text: string | null; was: string | null }[];
  conflicts: Conflict[];
  /** What is wrong with what came from the folder, so that it is not taken, by file and line. */
  errors: string[];
  /** What both have in common once that is done. */
  base: Map<string, string>;
}

/** What has to be done. `files` are those of the folder. Throws BrokenWorkspace when they are no workspace. */
export function syncOf(
  app: Workspace,
  files: Files,
  base: Digests,
  digest: (text: string) => string,
  before?: FilesRead,
): Sync {
  const folder = readWorkspace(files, before);
  const [appHas, folderHas] = [digestsOf(app, digest), digestsOf(folder, digest)];
  for (const unit of new Set([...appHas.keys(), ...folderHas.keys(), ...base.keys()])) {
    if (placeOfUnit(unit)?.kind !== 'records') continue;
    const last = base.get(unit);
    // The app has other records, and more: it counts as unchanged.
    if (last === undefined) appHas.delete(unit);
    else appHas.set(unit, last);
    if (!folderHas.has(unit) && last !== undefined) folderHas.set(unit, last);
  }
  const found = reconcile(base, appHas, folderHas);
  const next = new Map(found.base);
  const keep = (unit: string, has: string | undefined) =>
    has === undefined ? next.delete(unit) : next.set(unit, has);

  let savings: Saving[] = [];
  let errors: string[] = [];
  try {
    if (found.fromFolder.length > 0) savings = savingsOf(app, folder, found.fromFolder);
    for (const unit of found.fromFolder) keep(unit, folderHas.get(unit));
  } catch (caught) {
    if (!(caught instanceof BrokenWorkspace)) throw caught;
    errors = caught.errors.map(fileErrorInWords);
  }
  const texts =
    found.fromApp.length + found.conflicts.length === 0
      ? new Map<string, string>()
      : writeWorkspace(app);
  const writes = found.fromApp.flatMap(filesOfUnit).flatMap((path) => {
    const [text, was] = [texts.get(path) ?? null, files.get(path) ?? null];
    return text === was ? [] : [{ path, text, was }];
  });
  for (const unit of found.fromApp) keep(unit, appHas.get(unit));
  const [inApp, inFolder] = [
    texts,
    found.conflicts.length === 0 ? new Map<string, string>() : writeWorkspace(folder),
  ].map(unitsIn) as [Map<string, string>, Map<string, string>];
  const conflicts = found.conflicts.map((unit) => ({
    unit,
    app: inApp.get(unit) ?? null,
    folder: inFolder.get(unit) ?? null,
  }));
  return { savings, writes, conflicts, errors, base: next };
}
